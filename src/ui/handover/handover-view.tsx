'use client'
import { Button } from '@mantine/core'
import { useMemo } from 'react'
import { expectedOfAll } from '../../core/config/asked'
import { asBuilt, gapsIn } from '../../core/handover/as-built'
import { siteSheet } from '../../core/handover/site-sheet'
import { gapWords } from '../../words/en/as-built'
import { papersIn } from '../../words/papers'
import { remarkWords } from '../../words/sheet-words'
import { Scrollable } from '../frame/scrollable'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import { FloorPictures } from './floor-pictures'
import classes from './handover.module.css'
import { OutcomeTable } from './outcome-table'
import { SitePage } from './site-page'

/** The as-built sheet as it will print, and what is missing for it to be complete. */
export function HandoverView() {
  const { job, units, cards, plans, roll, asking } = useJob()
  const expected = useMemo(() => expectedOfAll(asking), [asking])
  const rows = asBuilt({ brief: job.brief, units, cards, plans, roll, expected })
  const gaps = gapsIn(rows).map(gapWords)
  const newest = Math.max(0, ...rows.map((row) => row.provenAt ?? 0))
  const { management, networks, timeZone } = job.brief
  const words = papersIn[job.brief.papersIn]
  const labels = words.sheet
  return (
    <div className={classes.view}>
      <div className={`${sheet.head} ${classes.noPrint}`}>
        <h1>{gaps.length === 0 ? 'Ready to hand over' : 'Not complete yet'}</h1>
        <div className={sheet.headRight}>
          <Button variant="default" component="a" href={`/api/jobs/${job.slug}/as-built.csv`}>
            Units as CSV
          </Button>
          <Button variant="default" component="a" href={`/api/jobs/${job.slug}/outcomes.csv`}>
            Settings as CSV
          </Button>
          <Button variant="default" component="a" href={`/api/jobs/${job.slug}/as-built.json`}>
            JSON
          </Button>
          <Button onClick={() => window.print()}>Print</Button>
        </div>
      </div>
      {gaps.length > 0 && (
        <ul className={`${classes.gaps} ${classes.noPrint}`}>
          {gaps.map((gap) => (
            <li key={gap}>{gap}</li>
          ))}
        </ul>
      )}
      <article className={classes.paper} lang={job.brief.papersIn}>
        <h2>{job.name}</h2>
        <p>
          {labels.about(job.brief.site, words.countryName(job.brief.country))}{' '}
          {newest > 0 && (
            <span suppressHydrationWarning>
              {labels.proven(
                new Date(newest).toLocaleString(words.locale, { dateStyle: 'long', timeStyle: 'short', timeZone }),
                timeZone,
              )}
            </span>
          )}
        </p>
        <p>
          {labels.management} <span className="mono">{management.cidr}</span>
          {management.vlan === null ? '' : `, VLAN ${management.vlan}`}
          {management.gateway && (
            <>
              , {labels.gateway} <span className="mono">{management.gateway}</span>
            </>
          )}
          . {labels.networks(networks.length)}:{' '}
          {networks
            .map(
              ({ ssid, security, vlan }) =>
                `${ssid} (${words.securityWords(security)}${vlan === null ? '' : `, VLAN ${vlan}`})`,
            )
            .join('; ') || words.none}
          .
        </p>
        <Scrollable label="Units as built" className={classes.scroll}>
          <table className={sheet.table}>
            <thead>
              <tr>
                {labels.columns.map((column) => (
                  <th key={column} scope="col">
                    {column}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.mac}>
                  <td>
                    <b>{row.name}</b>
                    <div className="soft">
                      {row.model}
                      {row.firmware !== '' && `, ${labels.firmware(row.firmware)}`}
                    </div>
                  </td>
                  <td>{row.location}</td>
                  <td className="mono">{row.address}</td>
                  <td className="mono">
                    {row.mac}
                    <div className="soft">{row.serial}</div>
                  </td>
                  <td>
                    {row.siteSwitch} <span className="mono">{row.sitePort}</span>
                  </td>
                  <td>
                    {row.radios.map((radio) => (
                      <div key={radio.band} className={classes.channel}>
                        {radio.band} GHz: {radio.channel}
                        {radio.plannedChannel !== undefined && ` (${labels.planned(radio.plannedChannel)})`},{' '}
                        {radio.width} MHz, {radio.conductedDbm ?? radio.powerDbm} dBm
                        {radio.eirpDbm !== undefined && (
                          <span className="soft">
                            {' '}
                            + {radio.gainDbi} dBi = {radio.eirpDbm} dBm EIRP
                          </span>
                        )}
                        {row.cells
                          .filter(({ band }) => band === radio.band)
                          .map(({ ssid, bssid }) => (
                            <div key={bssid} className="soft mono">
                              {bssid} {ssid}
                            </div>
                          ))}
                      </div>
                    ))}
                  </td>
                  <td data-state={row.state} className={classes.state}>
                    {words.states[row.state]}
                    {row.state === 'answers' && row.provenBy !== undefined && (
                      <div className="soft">{labels.provenBy(row.provenBy)}</div>
                    )}
                    {row.state === 'answers' && row.remarks.length > 0 && (
                      <div className="soft">{remarkWords(words, row)}</div>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scrollable>
        <FloorPictures words={words} />
        <OutcomeTable rows={rows} words={words} />
        <SitePage site={siteSheet(asking)} words={words} />
        <p className="soft">{labels.secrets}</p>
      </article>
    </div>
  )
}
