'use client'
/** The job in the browser: the server's reading, kept current by its events, and which unit is selected. */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useReducer, useRef, useState } from 'react'
import { type AskingJob, askingOf } from '../../core/config/asked'
import type { PlacedEvent } from '../../core/muster/events'
import type { Pulse } from '../../core/muster/pulse'
import { foldRoll, type Roll, withChanges } from '../../core/muster/roll'
import type { JobData } from './job-data'
import { NewsStream } from './news-stream'

/** A pulse with the time at which this browser heard it. */
export interface HeardPulse extends Pulse {
  /** ms since 1970, by the browser's clock. */
  readonly heardAt: number
}

export interface LiveJob extends JobData {
  /** All that settings are asked from, secrets as marks. */
  readonly asking: AskingJob
  /** Whether news comes in; the page shows what it knows in the meantime. */
  readonly connection: 'live' | 'lost' | 'locked-out'
  readonly selected: string | undefined
  readonly select: (unit: string | undefined) => void
}

const JobContext = createContext<LiveJob | undefined>(undefined)
/** Of its own: it changes every second, and the job does not. */
const PulseContext = createContext<HeardPulse | undefined>(undefined)

/** The server's pulse comes every second, ms. */
const lostAfterMs = 3500

export function useJob(): LiveJob {
  const job = useContext(JobContext)
  if (!job) throw new Error('useJob outside of a JobProvider')
  return job
}

/** How everything stands, told anew every second. */
export function usePulse(): HeardPulse | undefined {
  return useContext(PulseContext)
}

export function JobProvider({ data, children }: { data: JobData; children: ReactNode }) {
  const [told, add] = useReducer(
    (before: Roll, more: { events: readonly PlacedEvent[] } | { roll: Roll }) =>
      'roll' in more ? (more.roll.seq > before.seq ? more.roll : before) : foldRoll(more.events, before),
    data.roll,
  )
  const [selected, select] = useState<string>()
  const seq = useRef(data.roll.seq)
  seq.current = Math.max(seq.current, told.seq)

  // A page that was loaded anew may know more than the stream has brought.
  useEffect(() => add({ roll: data.roll }), [data.roll])

  const { slug } = data.job
  const { pulse, connection } = useNews(slug, seq, (events) => add({ events }))

  const { units, plans, cards, secretTimes } = data
  const { brief } = data.job
  const asking = useMemo(
    (): AskingJob => ({ brief, units, plans, cards, secretTimes, today: new Date() }),
    [brief, units, plans, cards, secretTimes],
  )
  const asked = useMemo(() => askingOf(asking), [asking])
  const roll = useMemo(() => withChanges(told, asked), [told, asked])
  const value = useMemo(
    () => ({ ...data, asking, roll, connection, selected, select }),
    [data, asking, roll, connection, selected],
  )
  return (
    <JobContext value={value}>
      <PulseContext value={pulse}>{children}</PulseContext>
    </JobContext>
  )
}

/** @param seq  number of the newest event that is here */
function useNews(
  slug: string,
  seq: { current: number },
  add: (events: readonly PlacedEvent[]) => void,
): Pick<LiveJob, 'connection'> & { readonly pulse: HeardPulse | undefined } {
  const [pulse, setPulse] = useState<HeardPulse>()
  const [connection, setConnection] = useState<LiveJob['connection']>('live')
  const act = useRef(add)
  act.current = add
  useEffect(() => {
    let heardAt = performance.now()
    const stream = new NewsStream({
      job: slug,
      seq: () => seq.current,
      onEvents: (events) => {
        const [first] = events
        const last = events.at(-1)
        if (!first || !last || last.seq <= seq.current) return
        // Some were missed while the stream changed hands.
        if (first.seq > seq.current + 1) return stream.want()
        seq.current = last.seq
        act.current(events)
      },
      onPulse: (heard) => {
        heardAt = performance.now()
        setPulse({ ...heard, heardAt: Date.now() })
        setConnection('live')
      },
      onLockedOut: () => setConnection('locked-out'),
    })
    const looking = setInterval(() => {
      if (performance.now() - heardAt > lostAfterMs) setConnection((before) => (before === 'live' ? 'lost' : before))
    }, 250)
    return () => {
      clearInterval(looking)
      stream.stop()
    }
  }, [slug, seq])
  return { pulse, connection }
}
