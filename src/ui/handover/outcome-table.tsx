import { keyText } from '../../core/config/unit-config'
import type { AsBuiltRow } from '../../core/handover/as-built'
import type { PaperWords } from '../../words/paper-words'
import { outcomeSummary, settingWords } from '../../words/sheet-words'
import { OutcomeMark } from '../slip/outcome-mark'
import classes from './handover.module.css'

/** What became of each unit's settings: all that is not plainly proven by name, the rest counted. */
export function OutcomeTable({ rows, words }: { rows: readonly AsBuiltRow[]; words: PaperWords }) {
  return (
    <section>
      <h3>{words.sheet.settings}</h3>
      {rows.map((row) => {
        const named = row.outcomes.filter(({ outcome }) => outcome.kind === 'by-hand' || outcome.kind === 'written')
        return (
          <div key={row.mac} className={classes.unitSettings}>
            <b>{row.name}</b>{' '}
            <span className="soft">{outcomeSummary(words, row.outcomes) || words.sheet.nothingPlanned}</span>
            {named.length > 0 && (
              <ul>
                {named.map((each) => {
                  const done = row.byHand.find(({ setting }) => keyText(setting) === keyText(each))?.done
                  return (
                    <li key={keyText(each)}>
                      <OutcomeMark kind={done ? 'proven' : each.outcome.kind} /> {settingWords(words, each)}:{' '}
                      {each.outcome.kind === 'by-hand'
                        ? words.sentence(each.outcome.hands)
                        : words.outcomeNames[each.outcome.kind]}
                      {done && ` ${words.sheet.seenToBy(done.who)}`}
                    </li>
                  )
                })}
              </ul>
            )}
          </div>
        )
      })}
    </section>
  )
}
