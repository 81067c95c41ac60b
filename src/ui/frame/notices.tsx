'use client'
import { pulseMessages } from '../../core/muster/pulse'
import { sentence, sentenceOfText } from '../../words/en/sentence'
import { useJob, usePulse } from '../live/job-provider'
import classes from './laptop-strip.module.css'

const orderWords = { sweep: 'The sweep', muster: 'The muster', 'restore-laptop': 'Putting the laptop back' } as const

/** What keeps the work from going on, or kept it a moment ago; nothing where all is well. */
export function Notices() {
  const { job, connection } = useJob()
  const pulse = usePulse()
  const failed = pulse?.failed[job.slug]
  const sentences = [
    ...(connection === 'lost' ? ['No news from Air Muster: this page looks for it and goes on by itself.'] : []),
    ...(connection === 'locked-out'
      ? ['Air Muster was started anew and does not know this browser: open it at the address that its terminal prints.']
      : []),
    ...(connection === 'live' && pulse ? pulseMessages(pulse).map(sentence) : []),
    ...(failed
      ? [
          `${orderWords[failed.kind]} failed three times and is not begun again by itself: ` +
            `${sentenceOfText(failed.reason)}`,
        ]
      : []),
  ]
  return (
    <div aria-live="polite" className={classes.notices}>
      {sentences.map((each) => (
        <p key={each}>{each}</p>
      ))}
    </div>
  )
}
