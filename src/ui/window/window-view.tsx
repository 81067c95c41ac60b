'use client'
import { Button } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { keyText } from '../../core/config/unit-config'
import type { Unit } from '../../core/kit/unit'
import type { Hand } from '../../core/showing/window-talk'
import { showing } from '../../words/en/showing'
import {
  cannotWords,
  closedWords,
  followIt,
  keptWords,
  movedWords,
  ownLaneWords,
  promptWords,
  refusalWords,
  saidAddress,
  terminalWords,
} from '../../words/en/window'
import { Message } from '../frame/message'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import { AskedChoices, AskedDialog, AskedLogin } from './asked'
import { AskedFile } from './asked-file'
import { FailedNote } from './failed-note'
import { Picture } from './picture'
import { ShowingPanel } from './showing-panel'
import { Terminal } from './terminal'
import { ToBe } from './to-be'
import { useWindow, type WindowState } from './use-window'
import { WhoseValues } from './whose-values'
import classes from './window.module.css'

/** A unit by hand: its own pages as a live picture, and beside them what it is to be. */
export function WindowView({ id }: { id: string }) {
  const { job, units } = useJob()
  const unit = units.find((each) => each.id === id)
  if (!unit)
    return (
      <Message
        title="This unit is not on the kit list."
        words="It may have been taken off it."
        link={{ href: `/jobs/${job.slug}/bench`, words: 'See the bench' }}
      />
    )
  return <OpenWindow unit={unit} />
}

/** Where it answers, as its label or its maker says: nobody else knows that of a model that nobody has described. */
function SaidAddress({ open }: { open: (address: string) => void }) {
  return (
    <form
      className={classes.acts}
      onSubmit={(event) => {
        event.preventDefault()
        const address = String(new FormData(event.currentTarget).get('at')).trim()
        if (address !== '') open(address)
      }}
    >
      <label>
        {saidAddress.label} <input name="at" className="mono" placeholder="192.168.1.1" />
      </label>
      <Button type="submit" variant="default">
        {saidAddress.open}
      </Button>
    </form>
  )
}

const onLoopback = (): boolean => /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/.test(globalThis.location?.hostname ?? '')

/** The same pages in a tab of this browser, where it runs on the machine that works the bench. */
function OwnLane({ address, ask }: { address: string | undefined; ask: ((hand: Hand) => void) | undefined }) {
  const [isHere, setHere] = useState(false)
  useEffect(() => setHere(onLoopback()), [])
  if (!isHere) return null
  if (address !== undefined)
    return (
      <a href={address} target="_blank" rel="noreferrer" title={ownLaneWords.untilClosed}>
        {ownLaneWords.there}
      </a>
    )
  return (
    <button
      type="button"
      disabled={ask === undefined}
      title={ownLaneWords.why}
      onClick={() => ask?.({ kind: 'own-lane' })}
    >
      {ownLaneWords.ask}
    </button>
  )
}

/** Settings that were shown, of the unit itself or of what is set through it. */
const shownKeys = ({ acts }: NonNullable<WindowState['shown']>, of: 'itself' | 'joined'): ReadonlySet<string> =>
  new Set(
    acts.flatMap(({ for: whom, value }) =>
      whom !== of || value?.id === undefined ? [] : [keyText({ id: value.id, of: value.of ?? '' })],
    ),
  )

function OpenWindow({ unit }: { unit: Unit }) {
  const { job, units } = useJob()
  const canvas = useRef<HTMLCanvasElement>(null)
  const frame = useRef<HTMLDivElement>(null)
  const [side, setSide] = useState<'to-be' | 'showing'>('to-be')
  const { state, prints, act, close, openAgain, follow } = useWindow(`/api/window/${job.slug}/${unit.id}`, canvas)
  const { phase, at, terminal, failed, cannot, asked, latencyMs, kept, moved, ownLane, closingInSeconds } = state
  const [first] = asked
  const joined = units.find((each) => each.id === state.actingFor)
  const isOpen = phase === 'open'
  // Whoever has put a value in goes on by keys in the page.
  const putIn = (hand: Hand): void => {
    act(hand)
    const inTerminal = frame.current?.querySelector('textarea')
    ;(inTerminal ?? canvas.current?.parentElement)?.focus()
  }
  return (
    <div className={classes.view}>
      <header className={classes.head}>
        <h1>{unit.name} by hand</h1>
        <span className="soft">{unit.location || unit.model}</span>
        <PageLink href={`/jobs/${job.slug}/bench`}>Back to the bench</PageLink>
        {isOpen ? (
          <Button variant="default" onClick={close}>
            Close the window
          </Button>
        ) : (
          phase !== 'opening' && <Button onClick={() => openAgain()}>Open the window</Button>
        )}
      </header>
      <section
        className={`${sheet.sheet} ${classes.window}`}
        aria-label={terminal ? terminalWords.its : terminalWords.pages}
      >
        <div className={classes.bar}>
          {!terminal && (
            <button type="button" disabled={!isOpen} onClick={() => act({ kind: 'back' })}>
              Back
            </button>
          )}
          <button type="button" disabled={!isOpen} onClick={() => act({ kind: 'reload' })}>
            {terminal ? terminalWords.again : 'Reload'}
          </button>
          {terminal ? (
            <span className={classes.prompt}>{promptWords(terminal)}</span>
          ) : (
            <form
              onSubmit={(event) => {
                event.preventDefault()
                act({ kind: 'go', address: String(new FormData(event.currentTarget).get('address')) })
              }}
            >
              <input
                key={at?.address}
                name="address"
                className="mono"
                aria-label="Address within the unit"
                defaultValue={at?.address ?? ''}
                disabled={!isOpen}
              />
            </form>
          )}
          <span className="mono">{unit.mac}</span>
          {!terminal && <OwnLane address={isOpen ? ownLane?.address : undefined} ask={isOpen ? act : undefined} />}
          <span className="soft" role="status">
            {isOpen && latencyMs !== undefined ? `${latencyMs} ms` : phase === 'opening' ? 'opening …' : ''}
          </span>
        </div>
        <div ref={frame} className={classes.frame} data-phase={phase}>
          {terminal ? (
            <Terminal
              terminal={terminal}
              prints={prints}
              label={terminalWords.label(unit.name)}
              isAsked={first !== undefined}
              act={act}
            />
          ) : (
            <Picture
              canvas={canvas}
              label={`The pages of ${unit.name}: keys go to the unit, Shift and Escape leave`}
              act={act}
            />
          )}
          {first?.kind === 'asks' && <AskedDialog key={first.question} asked={first} act={act} />}
          {first?.kind === 'choices' && <AskedChoices key={first.question} asked={first} act={act} />}
          {first?.kind === 'wants-file' && <AskedFile key={first.question} unit={unit} asked={first} act={act} />}
          {first?.kind === 'wants-login' && <AskedLogin key={first.question} asked={first} act={act} />}
          {moved && isOpen && (
            <p className={classes.note} data-kind="moved" role="status">
              {movedWords(moved)}{' '}
              <button type="button" onClick={follow}>
                {followIt}
              </button>
            </p>
          )}
          {kept && !moved && isOpen && <p className={classes.note}>{keptWords(kept)}</p>}
          {failed && !moved && isOpen && <FailedNote unit={unit} failed={failed} act={act} openAnew={follow} />}
          {cannot && isOpen && <p className={classes.note}>{cannotWords(cannot)}</p>}
          {closingInSeconds !== undefined && isOpen && (
            <p className={classes.note} role="alert">
              Nobody has touched it for long: it is closed in {closingInSeconds} s.
            </p>
          )}
          {phase === 'refused' && state.refusal && (
            <div className={classes.over}>
              <p>{refusalWords(state.refusal, unit)}</p>
              {state.refusal !== 'no-runner' && state.refusal.code === 'not-seen' && <SaidAddress open={openAgain} />}
            </div>
          )}
          {phase === 'closed' && state.why && <p className={classes.over}>{closedWords(state.why)}</p>}
        </div>
      </section>
      <div className={classes.side}>
        {!terminal && (
          <div className={classes.sides}>
            {(['to-be', 'showing'] as const).map((each) => (
              <button key={each} type="button" aria-pressed={side === each} onClick={() => setSide(each)}>
                {each === 'to-be'
                  ? showing.other
                  : `${showing.title}${state.shown ? ` ${state.shown.acts.length}` : ''}`}
              </button>
            ))}
          </div>
        )}
        {!terminal && (
          <WhoseValues
            unit={unit}
            joined={joined}
            choose={isOpen ? (id) => act({ kind: 'act-for', unit: id }) : undefined}
          />
        )}
        {side === 'to-be' || terminal ? (
          <ToBe
            unit={joined ?? unit}
            shownSoFar={state.shown && shownKeys(state.shown, joined ? 'joined' : 'itself')}
            likely={state.likely}
            act={isOpen ? putIn : undefined}
          />
        ) : (
          <ShowingPanel
            unit={unit}
            joined={joined}
            shown={state.shown}
            card={state.card}
            rehearsed={state.rehearsed}
            act={isOpen ? act : undefined}
          />
        )}
      </div>
    </div>
  )
}
