import { vlanWords } from '../../core/catalogue/values'
import type { PortLine, SiteSheet } from '../../core/handover/site-sheet'
import { sentence } from '../../words/en/sentence'
import { Scrollable } from '../frame/scrollable'
import sheet from '../theme/sheet.module.css'
import classes from './handover.module.css'

const nativeWords = (native: PortLine['native']): string =>
  native === 'nothing' ? 'none' : native === 'management' ? 'management' : `VLAN ${native}`

/** For whoever runs router and switch: what no unit of the job enforces. */
export function SitePage({ site }: { site: SiteSheet }) {
  return (
    <section className={classes.sitePage}>
      <h3>For whoever runs router and switch</h3>
      <p className="soft">None of this is set by the units. They count on it.</p>
      <Scrollable label="Subnets of the site" className={classes.scroll}>
        <table className={sheet.table}>
          <thead>
            <tr>
              <th scope="col">Subnet</th>
              <th scope="col">VLAN</th>
              <th scope="col">Addresses</th>
              <th scope="col">Gateway</th>
              <th scope="col">DHCP hands out</th>
              <th scope="col">DNS</th>
              <th scope="col">Networks on it</th>
              <th scope="col">May open connections to</th>
            </tr>
          </thead>
          <tbody>
            {site.subnets.map((subnet, index) => (
              <tr key={subnet.name}>
                <td>
                  <b>{subnet.name}</b>
                </td>
                <td className="mono">{vlanWords(subnet.vlan)}</td>
                <td className="mono">{subnet.cidr}</td>
                <td className="mono">{subnet.gateway ?? 'none'}</td>
                <td className="mono">{subnet.pool}</td>
                <td className="mono">{subnet.dns}</td>
                <td>{subnet.networks.join(', ') || 'none'}</td>
                <td>{site.talks[index]?.to.join(', ') || 'none of the others'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scrollable>
      {site.unserved.length > 0 && (
        <p>
          {site.unserved.length === 1 ? 'VLAN' : 'VLANs'} <span className="mono">{site.unserved.join(', ')}</span>{' '}
          {site.unserved.length === 1 ? 'has' : 'have'} networks and no subnet in this job: somebody else serves
          addresses there.
        </p>
      )}
      {site.options.map((option) => (
        <p key={option.code}>{sentence(option)}</p>
      ))}
      {site.ports.length > 0 && (
        <Scrollable label="Ports of the switch" className={classes.scroll}>
          <table className={sheet.table}>
            <thead>
              <tr>
                <th scope="col">Site switch</th>
                <th scope="col">Port</th>
                <th scope="col">Unit</th>
                <th scope="col">Without a tag</th>
                <th scope="col">With a tag</th>
              </tr>
            </thead>
            <tbody>
              {site.ports.map(({ siteSwitch, sitePort, unit, native, tagged }) => (
                <tr key={unit}>
                  <td>{siteSwitch}</td>
                  <td className="mono">{sitePort}</td>
                  <td>{unit}</td>
                  <td className="mono">{nativeWords(native)}</td>
                  <td className="mono">{tagged.join(', ') || 'none'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scrollable>
      )}
    </section>
  )
}
