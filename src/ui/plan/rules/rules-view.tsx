'use client'
import { useSearchParams } from 'next/navigation'
import { useMemo, useState } from 'react'
import { forgetRulesAction } from '../../../actions/plan-actions'
import type { Message } from '../../../core/message/message'
import { type Band, bands } from '../../../core/regulatory/blocks'
import { legalBlocks, whyNothingIsLegal } from '../../../core/regulatory/legal'
import { conditionsOf, radarRules } from '../../../words/en/radio-rules'
import { sentence } from '../../../words/en/sentence'
import { Scrollable } from '../../frame/scrollable'
import { useJob } from '../../live/job-provider'
import { useOrder } from '../../live/use-order'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { RulesChart } from './rules-chart'
import { useAllRules } from './rules-context'
import { RulesOfferPlace } from './rules-offer'

/** What a country allows, as a picture and as a table; any country. */
export function RulesView() {
  const { job, rulesOrigin } = useJob()
  const countries = useAllRules()
  const { order, pending, fault } = useOrder()
  const [code, setCode] = useState(useSearchParams().get('country') ?? job.brief.country)
  const [environment, setEnvironment] = useState<'indoor' | 'outdoor'>(job.brief.radio.environment)
  const country = countries.find((each) => each.code === code)
  const blocks = useMemo(
    () => (country ? legalBlocks(country.rules).filter((block) => environment === 'indoor' || !block.indoor) : []),
    [country, environment],
  )
  return (
    <RulesOfferPlace className={`${sheet.sheet} ${sheet.pad} ${classes.whole}`}>
      {(field) => (
        <>
          <div className={classes.row}>
            <select
              aria-label="Country of the rules"
              value={code}
              onChange={(event) => setCode(event.currentTarget.value)}
            >
              {countries.map((each) => (
                <option key={each.code} value={each.code}>
                  {each.name} ({each.code})
                </option>
              ))}
            </select>
            <select
              aria-label="Place of the rules"
              value={environment}
              onChange={(event) => setEnvironment(event.currentTarget.value as 'indoor' | 'outdoor')}
            >
              <option value="indoor">indoors</option>
              <option value="outdoor">outdoors</option>
            </select>
            <span className="soft">
              {country && `${radarRules(country.rules)}, `}
              {blocks.length} blocks; rules {sentence(rulesOrigin)}
            </span>
            {field}
            {rulesOrigin.code === 'rules-from' && (
              <button
                type="button"
                className={classes.quiet}
                disabled={pending}
                onClick={() => order(forgetRulesAction)}
              >
                Back to those of the program
              </button>
            )}
          </div>
          {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
          {country && (
            <>
              <RulesChart country={country.rules} environment={environment} />
              {bands.map((band) => (
                <BlockTable
                  key={band}
                  band={band}
                  blocks={blocks.filter((block) => block.band === band)}
                  why={whyNothingIsLegal(country.rules, band)}
                />
              ))}
            </>
          )}
        </>
      )}
    </RulesOfferPlace>
  )
}

interface BlockTableProps {
  readonly band: Band
  readonly blocks: ReturnType<typeof legalBlocks>
  readonly why: Message | undefined
}

function BlockTable({ band, blocks, why }: BlockTableProps) {
  const widths = [...new Set(blocks.map((block) => block.width))].sort((a, b) => a - b)
  const channels = [...new Set(blocks.map((block) => block.channel))]
  if (channels.length === 0)
    return (
      <p className="soft">
        {band} GHz: nothing is legal for an access point{why === undefined ? ' outdoors' : ''}. {why && sentence(why)}
      </p>
    )
  return (
    <Scrollable label={`Channels at ${band} GHz`} className={classes.rules}>
      <h2>{band} GHz</h2>
      <table className={sheet.table}>
        <thead>
          <tr>
            <th scope="col">Channel</th>
            {widths.map((width) => (
              <th key={width} scope="col">
                {width} MHz
              </th>
            ))}
            <th scope="col">Conditions at 20 MHz</th>
          </tr>
        </thead>
        <tbody>
          {channels.map((channel) => {
            const own =
              blocks.find((block) => block.channel === channel && block.width === 20) ??
              blocks.find((block) => block.channel === channel)
            const marks = own ? conditionsOf(own) : []
            return (
              <tr key={channel}>
                <td className="mono">{channel}</td>
                {widths.map((width) => {
                  const block = blocks.find((each) => each.channel === channel && each.width === width)
                  return (
                    <td key={width} className="mono">
                      {block ? `${block.limitDbm.toFixed(1)} dBm` : <span className="soft">no</span>}
                    </td>
                  )
                })}
                <td>{marks.join(', ')}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </Scrollable>
  )
}
