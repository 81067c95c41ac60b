'use client'
import { CopyButton } from '@mantine/core'
import { useState } from 'react'
import { type LaptopAddress, laptopAddresses } from '../../../core/addressing/laptop'
import { modelsOf } from '../../../core/kit/kit-card'
import { commandsFor, type System, systems } from '../../../words/en/laptop-commands'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'

/** Which address the laptop needs where, and the exact commands to set it and to take it away. */
export function LaptopView() {
  const { job, units, cards, plans, roll } = useJob()
  const [system, setSystem] = useState<System>('Linux')
  const [named, setNamed] = useState('')
  const models = modelsOf(units, cards)
  const inUse = [
    ...[...plans.values()].map((plan) => plan.address),
    ...roll.sightings.map((sighting) => sighting.address),
  ]
  // What the runner knows of this laptop is the name that Linux has for it.
  const known = system.startsWith('Linux') ? roll.laptop?.interfaceName : undefined
  const lines = laptopAddresses(job.brief, models, inUse)
  const commandsOf = ({ address, prefix }: LaptopAddress) =>
    commandsFor(address, prefix, named.trim() || known).find((each) => each.system === system)
  const shown = lines[0] && commandsOf(lines[0])
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
      <p className={classes.row}>
        <label>
          Its wired interface{' '}
          <input
            className="mono"
            size={14}
            placeholder={known ?? 'as it is listed'}
            value={named}
            onChange={(event) => setNamed(event.currentTarget.value)}
          />
        </label>
      </p>
      {shown && (
        <>
          <Command words="List them" text={shown.list} />
          <p className="soft">{shown.remark}</p>
        </>
      )}
      {lines.map((line) => {
        const commands = commandsOf(line)
        const there = own.includes(`${line.address}/${line.prefix}`)
        return (
          <section key={`${line.subnet} ${line.name}`} className={classes.reach}>
            <h2>
              {line.name || `${line.models.join(', ')} out of the box`} <span className="mono">{line.subnet}</span>
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
