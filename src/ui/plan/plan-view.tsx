'use client'
import { Button } from '@mantine/core'
import { useHotkeys } from '@mantine/hooks'
import { useSearchParams } from 'next/navigation'
import type { ReactNode } from 'react'
import { planAgain } from '../../actions/plan-actions'
import { sentence } from '../../words/en/sentence'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import { StandingNote } from '../live/standing-note'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import { AddressesView } from './addresses/addresses-view'
import { BandView } from './bands/band-view'
import { FloorView } from './floors/floor-view'
import { LaptopView } from './laptop/laptop-view'
import { LinksView } from './links/links-view'
import { type NamedRules, RulesContext } from './rules/rules-context'
import { RulesView } from './rules/rules-view'
import classes from './state/plan.module.css'
import { PlanProvider, usePlan } from './state/plan-context'

const views: readonly { id: string; words: string; show: () => ReactNode }[] = [
  { id: 'floor', words: 'Floor', show: () => <FloorView /> },
  { id: 'band', words: 'Bands', show: () => <BandView /> },
  { id: 'addresses', words: 'Addresses', show: () => <AddressesView /> },
  { id: 'links', words: 'Links', show: () => <LinksView /> },
  { id: 'laptop', words: 'Laptop', show: () => <LaptopView /> },
  { id: 'rules', words: 'Radio rules', show: () => <RulesView /> },
]

/** Addresses, channels and power: where each unit hangs and what it does to its neighbours. */
export function PlanView({ rules }: { rules: readonly NamedRules[] }) {
  return (
    <RulesContext value={rules}>
      <PlanProvider>
        <PlanPage />
      </PlanProvider>
    </RulesContext>
  )
}

function PlanPage() {
  const { job, planFaults, countryName, rulesOrigin } = useJob()
  const { undo, undoable, standing } = usePlan()
  const { order, pending, fault } = useOrder()
  const asked = useSearchParams().get('view')
  const view = views.find((each) => each.id === asked) ?? views[0]

  useHotkeys([['mod+Z', undo]], ['INPUT', 'TEXTAREA'])

  const sentences = [...planFaults.map((each) => sentence(each)), ...(fault ? [sentence(fault.told)] : [])]
  return (
    <div className={sheet.page}>
      <div className={sheet.head}>
        <h1>Channels, power, addresses</h1>
        <span className="soft">
          {countryName}, {job.brief.radio.environment}. Radio rules {sentence(rulesOrigin)}
        </span>
        {standing.kind !== 'saved' && <StandingNote standing={standing} onLoad={() => location.reload()} />}
        <div className={sheet.headRight}>
          <Button variant="default" disabled={undoable === 0} onClick={undo}>
            Undo
          </Button>
          <Button disabled={pending} onClick={() => order(() => planAgain(job.slug))}>
            {pending ? 'Planning …' : 'Plan again'}
          </Button>
        </div>
      </div>
      <nav className={classes.views} aria-label="Parts of the plan">
        {views.map(({ id, words }) => (
          <PageLink
            key={id}
            href={`/jobs/${job.slug}/plan?view=${id}`}
            aria-current={id === view?.id ? 'page' : undefined}
          >
            {words}
          </PageLink>
        ))}
      </nav>
      {[...new Set(sentences)].slice(0, 6).map((sentence) => (
        <p key={sentence} className={sheet.fault}>
          {sentence}
        </p>
      ))}
      {view?.show()}
    </div>
  )
}
