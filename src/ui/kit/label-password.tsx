import { useState } from 'react'
import { revealSecret } from '../../actions/brief-actions'
import { forgetLabelPasswordAction, keepLabelPasswordsAction } from '../../actions/kit-actions'
import { secretName } from '../../core/brief/brief'
import { labelPasswordWords as words } from '../../words/en/by-hand'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './kit.module.css'

/** The password that is printed on the label of one box: sealed when it is typed, shown only to whoever asks. */
export function LabelPassword({ mac }: { mac: string }) {
  const { job, secretTimes } = useJob()
  const { order, pending, fault } = useOrder()
  const [typed, setTyped] = useState<string>()
  const [shown, setShown] = useState<string>()
  const name = secretName.labelPassword(mac)
  const isKept = secretTimes.has(name)
  const keep = () =>
    order(async () => {
      const outcome = await keepLabelPasswordsAction(job.slug, [{ mac, password: typed ?? '' }])
      if (outcome.ok) setTyped(undefined)
      setShown(undefined)
      return outcome
    })
  const show = () =>
    order(async () => {
      const outcome = await revealSecret(job.slug, name)
      setShown(outcome.ok ? outcome.value : undefined)
      return outcome
    })
  return (
    <div className={`${sheet.inLine} ${classes.label}`}>
      <span>{words.title}</span> <span className="mono">{shown ?? (isKept ? '••••••••' : words.none)}</span>{' '}
      {typed === undefined ? (
        <>
          <button type="button" onClick={() => setTyped('')}>
            {isKept ? words.typeAnother : words.type}
          </button>
          {isKept && (
            <>
              <button type="button" disabled={pending} onClick={shown === undefined ? show : () => setShown(undefined)}>
                {shown === undefined ? words.show : words.hide}
              </button>
              <button
                type="button"
                disabled={pending}
                onClick={() => order(() => forgetLabelPasswordAction(job.slug, mac))}
              >
                {words.takeAway}
              </button>
            </>
          )}
        </>
      ) : (
        <>
          <input
            className="mono"
            aria-label={words.title}
            // biome-ignore lint/a11y/noAutofocus: the person has just asked for this field
            autoFocus
            autoComplete="off"
            spellCheck={false}
            maxLength={200}
            size={16}
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            onKeyDown={(event) => event.key === 'Enter' && typed !== '' && keep()}
          />
          <button type="button" disabled={pending || typed === ''} onClick={keep}>
            {words.keep}
          </button>
          <button type="button" onClick={() => setTyped(undefined)}>
            {words.leave}
          </button>
        </>
      )}
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
    </div>
  )
}
