'use client'
import { UnstyledButton } from '@mantine/core'
import { restoreLaptop } from '../../actions/muster-actions'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import classes from './laptop-strip.module.css'
import { Notices } from './notices'

/** This laptop: its wired addresses, what they reach, lanes open, and the way to put it back as it was. */
export function LaptopStrip() {
  const { job, roll } = useJob()
  const { order, pending } = useOrder()
  const { laptop } = roll
  const { cableEnd } = roll.heard
  return (
    <footer className={classes.foot}>
      <Notices />
      <div className={classes.strip}>
        <b>This laptop</b>
        {laptop && <span className="mono">{laptop.interfaceName}</span>}
        {cableEnd && (
          <span>
            in {cableEnd.name}, port {cableEnd.port}
          </span>
        )}
        {laptop?.addresses.map(({ cidr, origin }) => (
          <span key={cidr} className={`${classes.chip} mono`} data-origin={origin}>
            {cidr} <span className={classes.origin}>{origin === 'own' ? 'site' : 'added'}</span>
          </span>
        ))}
        {laptop?.vlans.map((vlan) => (
          <span key={vlan} className={`${classes.chip} mono`}>
            VLAN {vlan}, with its tag
          </span>
        ))}
        {laptop?.silentVlans.map((vlan) => (
          <span key={vlan}>nobody is heard on VLAN {vlan}</span>
        ))}
        {!laptop && <span>not looked at yet: sweep the bench</span>}
        {laptop && laptop.pace !== 1 && (
          <span className={classes.pace}>rehearsal, {laptop.pace} times faster than life</span>
        )}
        <span className={classes.right}>
          {laptop ? `${laptop.lanes} ${laptop.lanes === 1 ? 'lane' : 'lanes'} open` : ''}
          <UnstyledButton
            className={classes.restore ?? ''}
            disabled={pending || roll.muster !== 'idle'}
            onClick={() => order(() => restoreLaptop(job.slug))}
          >
            Put it back as it was
          </UnstyledButton>
        </span>
      </div>
    </footer>
  )
}
