'use client'
import { UnstyledButton } from '@mantine/core'
import { useJob } from '../live/job-provider'
import classes from './frame.module.css'

const most = 8

/** Units whose name, place, MAC or serial holds what was typed; punctuation of a MAC does not matter. */
export function FindUnit({ typed, onFound }: { typed: string; onFound: (unit: string) => void }) {
  const { units } = useJob()
  const plain = (text: string): string => text.toLowerCase().replace(/[:\-. ]/g, '')
  const wanted = plain(typed)
  const found = units
    .filter((unit) => [unit.name, unit.location, unit.mac, unit.serial].some((text) => plain(text).includes(wanted)))
    .slice(0, most)
  if (found.length === 0) return <p>No unit on the list has that.</p>
  return (
    <ul style={{ listStyle: 'none', margin: '10px 0 0', padding: 0 }}>
      {found.map((unit) => (
        <li key={unit.id}>
          <UnstyledButton className={classes.found ?? ''} onClick={() => onFound(unit.id)}>
            <b>{unit.name}</b> <span className="soft">{unit.location}</span> <span className="mono">{unit.mac}</span>
          </UnstyledButton>
        </li>
      ))}
    </ul>
  )
}
