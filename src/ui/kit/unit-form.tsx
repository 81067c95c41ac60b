'use client'
import { Button, Select, TextInput } from '@mantine/core'
import { useState } from 'react'
import { saveUnitAction } from '../../app/actions/kit-actions'
import type { Unit } from '../../core/kit/unit'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './kit.module.css'

type Kept = Unit & { readonly version: number }

/** One unit of the list, to change or to add. */
export function UnitForm({ unit, models, onSaved }: { unit?: Kept; models: readonly string[]; onSaved: () => void }) {
  const { job } = useJob()
  const { order, pending, fault } = useOrder()
  const [row, setRow] = useState({
    name: unit?.name ?? '',
    place: unit?.place ?? '',
    model: unit?.model ?? models[0] ?? '',
    mac: unit?.mac ?? '',
    serial: unit?.serial ?? '',
    port: unit?.port?.toString() ?? '',
  })
  const field = (name: keyof typeof row) => ({
    value: row[name],
    error: fault?.field === name ? fault.sentence : undefined,
    onChange: (event: { currentTarget: { value: string } }) => setRow({ ...row, [name]: event.currentTarget.value }),
  })
  const save = () =>
    order(async () => {
      const id =
        unit?.id ??
        `${row.name
          .toLowerCase()
          .replace(/[^a-z0-9-]+/g, '-')
          .slice(0, 30)}-${Math.random().toString(36).slice(2, 7)}`
      const outcome = await saveUnitAction(job.slug, { ...row, id, port: row.port === '' ? null : Number(row.port), version: unit?.version ?? 0 })
      if (outcome.ok) onSaved()
      return outcome
    })
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault()
        save()
      }}
    >
      <b>{unit ? unit.name : 'A new unit'}</b>
      <TextInput label="Name" {...field('name')} />
      <TextInput label="Place" {...field('place')} />
      <Select label="Model" allowDeselect={false} data={[...models]} value={row.model} onChange={(model) => model && setRow({ ...row, model })} />
      <TextInput classNames={{ input: 'mono' }} label="MAC, from its label" {...field('mac')} />
      <TextInput classNames={{ input: 'mono' }} label="Serial" {...field('serial')} />
      <TextInput classNames={{ input: 'mono' }} label="Switch port" inputMode="numeric" {...field('port')} />
      {fault && !(fault.field && fault.field in row) && <p className={sheet.fault}>{fault.sentence}</p>}
      <Button type="submit" disabled={pending}>
        {unit ? 'Save' : 'Add to the list'}
      </Button>
    </form>
  )
}
