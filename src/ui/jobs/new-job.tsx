'use client'
import { Button, Modal, NativeSelect, TextInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { createJobAction } from '../../actions/job-actions'
import { sentence } from '../../words/en/sentence'
import type { Option } from '../brief/fields'
import { useOrder } from '../live/use-order'
import classes from './jobs-view.module.css'

/** A new job: its name, the site, and the country first of all. */
export function NewJob({ countries }: { countries: readonly Option[] }) {
  const router = useRouter()
  const [opened, dialog] = useDisclosure(false)
  const { order, pending, fault } = useOrder()
  const [job, setJob] = useState({ name: '', site: '', country: '' })
  const field = (name: 'name' | 'site') => ({
    value: job[name],
    error: fault?.field === name ? sentence(fault.told) : undefined,
    onChange: (event: { currentTarget: { value: string } }) => setJob({ ...job, [name]: event.currentTarget.value }),
  })
  const begin = () =>
    order(async () => {
      const outcome = await createJobAction({ ...job, timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone })
      if (outcome.ok) router.push(`/jobs/${outcome.value}/brief`)
      return outcome
    })
  return (
    <>
      <Button onClick={dialog.open}>Begin a job</Button>
      <Modal opened={opened} onClose={dialog.close} title="A new job">
        <form
          className={classes.form}
          onSubmit={(event) => {
            event.preventDefault()
            begin()
          }}
        >
          <TextInput label="Name of the job" data-autofocus {...field('name')} />
          <TextInput label="The site" description="Which part of it, as the client calls it." {...field('site')} />
          <NativeSelect
            label="Country"
            description="It decides which channels, widths and powers are legal. Radios are set after it."
            data={[
              { value: '', label: 'choose the country' },
              ...countries.map(({ value, words }) => ({ value, label: words })),
            ]}
            value={job.country}
            error={fault?.field === 'country' ? sentence(fault.told) : undefined}
            onChange={(event) => setJob({ ...job, country: event.currentTarget.value })}
          />
          {fault && !fault.field && <p className={classes.fault}>{sentence(fault.told)}</p>}
          <Button type="submit" disabled={pending || job.country === ''}>
            Write the brief
          </Button>
        </form>
      </Modal>
    </>
  )
}
