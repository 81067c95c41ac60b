'use client'
import { Textarea } from '@mantine/core'
import { dropsText } from './drops-text'

interface Props {
  readonly label: string
  readonly description: string
  readonly text: string
  readonly onText: (text: string) => void
}

/** A field for lines that are pasted, or dropped on it as a file. */
export function PastedText({ label, description, text, onText }: Props) {
  return (
    <Textarea
      label={label}
      description={description}
      autosize
      minRows={2}
      maxRows={6}
      value={text}
      onChange={(event) => onText(event.currentTarget.value)}
      {...dropsText(onText)}
    />
  )
}
