import type { SiteSheet } from '../../core/handover/site-sheet'
import type { PaperWords } from '../../words/paper-words'
import { nativeWords } from '../../words/sheet-words'
import { Scrollable } from '../frame/scrollable'
import sheet from '../theme/sheet.module.css'
import classes from './handover.module.css'

/** For whoever runs router and switch: what no unit of the job enforces. */
export function SitePage({ site, words }: { site: SiteSheet; words: PaperWords }) {
  const { none, site: labels } = words
  return (
    <section className={classes.sitePage}>
      <h3>{labels.title}</h3>
      <p className="soft">{labels.about}</p>
      <Scrollable label={labels.title} className={classes.scroll}>
        <table className={sheet.table}>
          <thead>
            <tr>
              {labels.subnets.map((column) => (
                <th key={column} scope="col">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {site.subnets.map((subnet, index) => (
              <tr key={subnet.name}>
                <td>
                  <b>{subnet.name}</b>
                </td>
                <td className="mono">{subnet.vlan ?? labels.untagged}</td>
                <td className="mono">{subnet.cidr}</td>
                <td className="mono">{subnet.gateway ?? none}</td>
                <td className="mono">{subnet.pool ? labels.range(subnet.pool.first, subnet.pool.last) : none}</td>
                <td className="mono">{subnet.dns.join(', ') || none}</td>
                <td>{subnet.networks.join(', ') || none}</td>
                <td>{site.talks[index]?.to.join(', ') || labels.noneOfTheOthers}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrollable>
      {site.unserved.length > 0 && <p>{labels.unserved(site.unserved)}</p>}
      {site.options.map((option) => (
        <p key={option.code}>{words.sentence(option)}</p>
      ))}
      {site.ports.length > 0 && (
        <Scrollable label={labels.ports.join(', ')} className={classes.scroll}>
          <table className={sheet.table}>
            <thead>
              <tr>
                {labels.ports.map((column) => (
                  <th key={column} scope="col">
                    {column}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {site.ports.map(({ siteSwitch, sitePort, unit, native, tagged }) => (
                <tr key={unit}>
                  <td>{siteSwitch}</td>
                  <td className="mono">{sitePort}</td>
                  <td>{unit}</td>
                  <td className="mono">{nativeWords(words, native)}</td>
                  <td className="mono">{tagged.join(', ') || none}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scrollable>
      )}
    </section>
  )
}
