'use client'
import { CopyButton } from '@mantine/core'
import { useState } from 'react'
import { laptopAddresses, type SystemCommands } from '../../core/addressing/laptop'
import { modelsOf } from '../../core/kit/kit-card'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import classes from './plan.module.css'

const systems: readonly SystemCommands['system'][] = ['Linux', 'Windows', 'macOS']

/** Which address the laptop needs where, and the exact commands to set it and to take it away. */
export function LaptopView() {
  const { job, units, cards, plans, roll } = useJob()
  const [system, setSystem] = useState<SystemCommands['system']>('Linux')
  const models = modelsOf(units, cards)
  const inUse = [
    ...[...plans.values()].map((plan) => plan.address),
    ...roll.sightings.map((sighting) => sighting.address),
  ]
  const lines = laptopAddresses(job.brief, models, inUse, roll.laptop?.interfaceName)
  const own = roll.laptop?.addresses.map((address) => address.cidr) ?? []
  return (
    <div className={`${sheet.sheet} ${sheet.pad} ${classes.laptop} ${classes.whole}`}>
      <p>
        A laptop reaches a unit only from an address in the same subnet. Lanes do this by themselves; by hand it is one
        line each. None of these addresses is planned for a unit, handed out by DHCP, or seen on the wire.
      </p>
      <div className={classes.systems} role="radiogroup" aria-label="System of the laptop">
        {systems.map((each) => (
          // biome-ignore lint/a11y/useSemanticElements: three words in a row, told as radio buttons
          <button key={each} type="button" role="radio" aria-checked={each === system} onClick={() => setSystem(each)}>
            {each}
          </button>
        ))}
      </div>
      {lines.map((line) => {
        const commands = line.commands.find((each) => each.system === system)
        const there = own.includes(`${line.address}/${line.prefix}`)
        return (
          <section key={line.subnet + line.why} className={classes.reach}>
            <h2>
              {line.why} <span className="mono">{line.subnet}</span>
            </h2>
            <p>
              Take <b className="mono">{line.address}</b>
              {there && ', which this laptop has already'}.
            </p>
            {commands && (
              <>
                <Command words="Set it" text={commands.set} />
                <Command words="Undo it" text={commands.undo} />
              </>
            )}
          </section>
        )
      })}
    </div>
  )
}

function Command({ words, text }: { words: string; text: string }) {
  return (
    <div className={classes.command}>
      <span className="soft">{words}</span>
      <code className="mono">{text}</code>
      <CopyButton value={text}>
        {({ copied, copy }) => (
          <button type="button" className={classes.quiet} onClick={copy}>
            {copied ? 'copied' : 'copy'}
          </button>
        )}
      </CopyButton>
    </div>
  )
}
