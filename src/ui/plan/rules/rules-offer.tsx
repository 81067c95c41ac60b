'use client'
import { Button } from '@mantine/core'
import { type ReactNode, useState } from 'react'
import { offerRulesAction, takeRulesAction } from '../../../actions/plan-actions'
import type { RulesOffer } from '../../../core/regulatory/rules-offer'
import { sentence } from '../../../words/en/sentence'
import { ChooseFile } from '../../frame/choose-file'
import { DropPlace } from '../../frame/drop-place'
import { useOrder } from '../../live/use-order'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'

/** Files of no type of their own: by their endings. */
const databases = { 'application/octet-stream': ['.db', '.p7s'], 'application/pkcs7-signature': ['.p7s'] }

interface Props {
  readonly className: string
  /** The page on which rules may be dropped, given the field for them. */
  readonly children: (field: ReactNode) => ReactNode
}

/** Newer radio rules: looked at first, in use when somebody says yes. */
export function RulesOfferPlace({ className, children }: Props) {
  const { order, pending, fault } = useOrder()
  const [offer, setOffer] = useState<RulesOffer>()
  const look = (files: readonly File[]) => {
    const signature = files.find((file) => file.name.endsWith('.p7s'))
    const database = files.find((file) => file !== signature)
    setOffer(undefined)
    if (!database) return
    const form = new FormData()
    form.set('file', database)
    if (signature) form.set('signature', signature)
    order(async () => {
      const outcome = await offerRulesAction(form)
      if (outcome.ok) setOffer(outcome.value)
      return outcome
    })
  }
  const take = (hash: string) =>
    order(async () => {
      const outcome = await takeRulesAction(hash)
      if (outcome.ok) setOffer(undefined)
      return outcome
    })
  return (
    <DropPlace what="a regulatory.db and its signature" accept={databases} className={className} onFiles={look}>
      {children(
        <>
          <ChooseFile
            words={pending ? 'Checking …' : 'Look at a newer regulatory.db'}
            label="A newer regulatory.db, with its signature regulatory.db.p7s"
            disabled={pending}
            className={classes.quiet}
            onFiles={look}
          />
          {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
          {offer && (
            <section className={classes.offer} aria-label="Newer radio rules">
              <h2>
                {offer.name}: {offer.countries} countries,{' '}
                {offer.changed === 0 ? 'nothing changes' : `${offer.changed} change`}
              </h2>
              <p data-signed={offer.signed}>
                {sentence(offer.signer)}
                {offer.signed === 'not-at-all' &&
                  ' Choose regulatory.db and regulatory.db.p7s together where you have both.'}
              </p>
              {offer.differences.length > 0 && (
                <ul>
                  {offer.differences.map(({ country, changes }) => (
                    <li key={country}>
                      <b>{country}</b> {changes.map(sentence).join('; ')}
                    </li>
                  ))}
                  {offer.changed > offer.differences.length && (
                    <li>and {offer.changed - offer.differences.length} countries more</li>
                  )}
                </ul>
              )}
              <div className={classes.offerActions}>
                <Button disabled={pending} onClick={() => take(offer.hash)}>
                  Take these rules into use
                </Button>
                <Button variant="default" disabled={pending} onClick={() => setOffer(undefined)}>
                  Keep the present ones
                </Button>
              </div>
            </section>
          )}
        </>,
      )}
    </DropPlace>
  )
}
