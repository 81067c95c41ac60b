'use client'
import { FileButton } from '@mantine/core'
import { useRef } from 'react'

interface Props {
  /** What the button says. */
  readonly words: string
  /** What is chosen, for those who do not see what is around. */
  readonly label: string
  readonly accept?: string
  readonly disabled: boolean
  readonly className: string | undefined
  readonly onFiles: (files: readonly File[]) => void
}

/** A button that opens the system's choice of files. The same file can be chosen again: it may have changed. */
export function ChooseFile({ words, label, accept, disabled, className, onFiles }: Props) {
  const reset = useRef<() => void>(null)
  return (
    <FileButton
      multiple
      resetRef={reset}
      {...(accept === undefined ? {} : { accept })}
      inputProps={{ 'aria-label': label }}
      onChange={(files) => {
        if (files.length > 0) onFiles(files)
        reset.current?.()
      }}
    >
      {(button) => (
        <button type="button" className={className} disabled={disabled} {...button}>
          {words}
        </button>
      )}
    </FileButton>
  )
}
