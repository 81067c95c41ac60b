'use client'
import { type FormEvent, useState } from 'react'
import { forgetLoginTodayAction, keepLoginTodayAction } from '../../actions/brief-actions'
import { secretName } from '../../core/brief/brief'
import { loginTodayWords as words } from '../../words/en/login-today'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './frame.module.css'

/** A login that the client uses today, of all units of the job or of one box. It is given, and never shown again. */
export function LoginToday({ of }: { of: 'job' | { readonly mac: string } }) {
  const { job, secretTimes } = useJob()
  const { order, pending, fault } = useOrder()
  const [isTyped, setTyped] = useState(false)
  const exists = secretTimes.has(of === 'job' ? secretName.loginToday : secretName.boxLoginToday(of.mac))
  const keep = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault()
    const given = Object.fromEntries(new FormData(event.currentTarget))
    order(async () => {
      const outcome = await keepLoginTodayAction(job.slug, of, given)
      if (outcome.ok) setTyped(false)
      return outcome
    })
  }
  return (
    <div className={`${sheet.inLine} ${classes.today}`}>
      <span>{words.title}</span> <span className="mono">{exists ? '••••••••' : words.none}</span>{' '}
      {isTyped ? (
        <form onSubmit={keep}>
          <input
            name="user"
            className="mono"
            aria-label={words.user}
            placeholder={words.userHint}
            autoComplete="off"
            size={18}
          />{' '}
          <input
            name="password"
            type="password"
            className="mono"
            aria-label={words.password}
            placeholder={words.password}
            autoComplete="off"
            required
            size={16}
          />{' '}
          <button type="submit" disabled={pending}>
            {words.keep}
          </button>{' '}
          <button type="button" onClick={() => setTyped(false)}>
            {words.leave}
          </button>
        </form>
      ) : (
        <>
          <button type="button" onClick={() => setTyped(true)}>
            {exists ? words.giveAnother : words.give}
          </button>{' '}
          {exists && (
            <button type="button" disabled={pending} onClick={() => order(() => forgetLoginTodayAction(job.slug, of))}>
              {words.takeAway}
            </button>
          )}
        </>
      )}
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
    </div>
  )
}
