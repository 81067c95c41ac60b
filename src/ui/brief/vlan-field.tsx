'use client'
import { TextInput } from '@mantine/core'

interface Props {
  readonly value: number | null
  readonly error: string | undefined
  readonly onChange: (vlan: number | null) => void
}

/** A VLAN as it is typed: letters leave no trace, an empty field means untagged. */
export function VlanField({ value, error, onChange }: Props) {
  return (
    <TextInput
      classNames={{ input: 'mono' }}
      label="VLAN"
      inputMode="numeric"
      value={value ?? ''}
      error={error}
      onChange={(event) => {
        const digits = event.currentTarget.value.replace(/\D/g, '')
        onChange(digits === '' ? null : Number(digits))
      }}
    />
  )
}
