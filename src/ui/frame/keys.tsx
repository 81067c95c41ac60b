'use client'
import { Modal, TextInput, UnstyledButton } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { usePathname, useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { musterUnits, pauseMuster } from '../../actions/muster-actions'
import { allUnits } from '../../core/muster/selection'
import { stages } from '../../core/muster/stages'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import { FindUnit } from './find-unit'
import classes from './frame.module.css'
import { scanBurst } from './scan-burst'

const keyWords: readonly (readonly [keys: string, words: string])[] = [
  ['1 to 6', 'the stages'],
  ['/', 'find a unit'],
  ['j', 'next row'],
  ['k', 'previous row'],
  ['Enter', 'the slip of the selected unit'],
  ['r', 'call the roll'],
  ['p', 'pause after this step'],
  ['Esc', 'let go of the unit'],
  ['?', 'these keys'],
]

/** Every action by keyboard. Nothing is taken from somebody who types into a field. */
export function Keys() {
  const { job, units, roll, selected, select } = useJob()
  const router = useRouter()
  const path = usePathname()
  const { order } = useOrder()
  const [help, helpDialog] = useDisclosure(false)
  const [finding, findDialog] = useDisclosure(false)
  const [typed, setTyped] = useState('')
  // One for as long as the page is there: a key that waits must outlive the next news.
  const [burst] = useState(scanBurst)

  useEffect(() => {
    const step = (by: number): void => {
      const at = units.findIndex((unit) => unit.id === selected)
      const next = units[at < 0 ? (by > 0 ? 0 : units.length - 1) : Math.min(Math.max(at + by, 0), units.length - 1)]
      if (next) select(next.id)
    }
    const acts: Readonly<Record<string, () => void>> = {
      '?': helpDialog.open,
      '/': () => {
        setTyped('')
        findDialog.open()
      },
      j: () => step(1),
      k: () => step(-1),
      r: () => roll.muster === 'idle' && order(() => musterUnits(job.slug, allUnits)),
      p: () => roll.muster === 'working' && order(() => pauseMuster(job.slug)),
      Escape: () => select(undefined),
      Enter: () => document.getElementById('slip')?.focus(),
    }
    const press = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || help || finding) return
      const target = event.target instanceof HTMLElement ? event.target : undefined
      if (target?.closest('input, textarea, select, [contenteditable], [role="grid"], [role="radio"]')) return
      // A label scanner types fast and ends with Enter: its letters are not ours.
      if (burst.heard(event)) return
      if (event.key === 'Enter' && target?.closest('button, a, tr')) return
      const stage = stages[Number(event.key) - 1]
      const act = stage && /^[1-6]$/.test(event.key) ? () => router.push(`/jobs/${job.slug}/${stage}`) : acts[event.key]
      if (!act) return
      event.preventDefault()
      // What only moves the eye is done at once; what acts waits for the blink that tells a person.
      if (/^[jk?]$|^Escape$|^Enter$/.test(event.key)) act()
      else burst.unless(act)
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [job.slug, units, roll.muster, selected, select, router, order, help, finding, helpDialog, findDialog, burst])

  return (
    <>
      <UnstyledButton className={classes.tool ?? ''} onClick={findDialog.open} aria-label="Find a unit">
        <kbd>/</kbd> <span>find a unit</span>
      </UnstyledButton>
      <UnstyledButton className={classes.tool ?? ''} onClick={helpDialog.open} aria-label="Keys">
        <kbd>?</kbd> <span>keys</span>
      </UnstyledButton>
      <Modal opened={help} onClose={helpDialog.close} title="Keys">
        <dl className={classes.keyList}>
          {keyWords.map(([keys, words]) => (
            <div key={keys} style={{ display: 'contents' }}>
              <dt>
                <kbd>{keys}</kbd>
              </dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
      </Modal>
      <Modal opened={finding} onClose={findDialog.close} title="Find a unit">
        <TextInput
          data-autofocus
          aria-label="Name, location, MAC or serial"
          placeholder="Name, location, MAC or serial"
          value={typed}
          onChange={(event) => setTyped(event.currentTarget.value)}
        />
        <FindUnit
          typed={typed}
          onFound={(unit) => {
            select(unit)
            findDialog.close()
            if (!/\/(bench|muster|kit|plan)$/.test(path)) router.push(`/jobs/${job.slug}/muster`)
          }}
        />
      </Modal>
    </>
  )
}
