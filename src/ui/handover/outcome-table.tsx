import { keyText } from '../../core/config/unit-config'
import type { AsBuiltRow } from '../../core/handover/as-built'
import { outcomeNames, outcomeSummary, settingWords } from '../../words/en/outcomes'
import { sentence } from '../../words/en/sentence'
import { OutcomeMark } from '../slip/outcome-mark'
import classes from './handover.module.css'

/** What became of each unit's settings: all that is not plainly proven by name, the rest counted. */
export function OutcomeTable({ rows }: { rows: readonly AsBuiltRow[] }) {
  return (
    <section>
      <h3>Settings</h3>
      {rows.map((row) => {
        const named = row.outcomes.filter(({ outcome }) => outcome.kind === 'by-hand' || outcome.kind === 'written')
        return (
          <div key={row.mac} className={classes.unitSettings}>
            <b>{row.name}</b>{' '}
            <span className="soft">{outcomeSummary(row.outcomes) || 'nothing is planned for it'}</span>
            {named.length > 0 && (
              <ul>
                {named.map((each) => {
                  const done = row.byHand.find(({ setting }) => keyText(setting) === keyText(each))?.done
                  return (
                    <li key={keyText(each)}>
                      <OutcomeMark kind={done ? 'proven' : each.outcome.kind} /> {settingWords(each)}:{' '}
                      {each.outcome.kind === 'by-hand' ? sentence(each.outcome.hands) : outcomeNames[each.outcome.kind]}
                      {done && ` Seen to by ${done.who}.`}
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
