'use client'
/** The job in the browser: the server's reading, kept current by its events, and which unit is selected. */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useReducer, useState } from 'react'
import { z } from 'zod'
import { askingOf } from '../../core/config/asked'
import { type PlacedEvent, placedEventSchema } from '../../core/muster/events'
import { foldRoll, type Roll, withChanges } from '../../core/muster/roll'
import type { JobData } from './job-data'

const pulseSchema = z.object({ runnerSeenAt: z.number().nullable(), sweptAt: z.number().nullable(), now: z.number() })
export type Pulse = z.infer<typeof pulseSchema>

export interface LiveJob extends JobData {
  readonly pulse: Pulse | undefined
  /** Whether news comes in; the page shows what it knows in the meantime. */
  readonly connection: 'live' | 'lost'
  readonly selected: string | undefined
  readonly select: (unit: string | undefined) => void
}

const JobContext = createContext<LiveJob | undefined>(undefined)

export function useJob(): LiveJob {
  const job = useContext(JobContext)
  if (!job) throw new Error('useJob outside of a JobProvider')
  return job
}

export function JobProvider({ data, children }: { data: JobData; children: ReactNode }) {
  const [told, add] = useReducer(
    (before: Roll, more: { events: readonly PlacedEvent[] } | { roll: Roll }) =>
      'roll' in more ? (more.roll.seq > before.seq ? more.roll : before) : foldRoll(more.events, before),
    data.roll,
  )
  const [pulse, setPulse] = useState<Pulse>()
  const [connection, setConnection] = useState<LiveJob['connection']>('live')
  const [selected, select] = useState<string>()

  // A page that was loaded anew may know more than the stream has brought.
  useEffect(() => add({ roll: data.roll }), [data.roll])

  const { slug } = data.job
  const from = data.roll.seq
  // biome-ignore lint/correctness/useExhaustiveDependencies: the stream goes on from where it began; a newer reading needs no new stream
  useEffect(() => {
    const source = new EventSource(`/api/jobs/${slug}/events?after=${from}`)
    source.onopen = () => setConnection('live')
    source.onerror = () => setConnection('lost')
    source.addEventListener('events', (message) => add({ events: z.array(placedEventSchema).parse(JSON.parse(message.data)) }))
    source.addEventListener('pulse', (message) => setPulse(pulseSchema.parse(JSON.parse(message.data))))
    return () => source.close()
  }, [slug])

  const { units, plans, cards, secretTimes } = data
  const { brief } = data.job
  const asking = useMemo(() => askingOf({ brief, units, plans, cards, secretTimes }), [brief, units, plans, cards, secretTimes])
  const roll = useMemo(() => withChanges(told, asking), [told, asking])
  const value = useMemo(() => ({ ...data, roll, pulse, connection, selected, select }), [data, roll, pulse, connection, selected])
  return <JobContext value={value}>{children}</JobContext>
}
