'use client'
import { TextInput } from '@mantine/core'

/** A short list in one field, with commas between. */
export function ListField({ label, value, onChange }: { label: string; value: readonly string[]; onChange: (value: string[]) => void }) {
  return (
    <TextInput
      classNames={{ input: 'mono' }}
      label={label}
      defaultValue={value.join(', ')}
      onChange={(event) =>
        onChange(
          event.currentTarget.value
            .split(/[,\s]+/)
            .map((item) => item.trim())
            .filter((item) => item !== ''),
        )
      }
    />
  )
}
