'use client'
import { type ReactNode, useState } from 'react'
import { type Accept, useDropzone } from 'react-dropzone'
import classes from './drop-place.module.css'

interface Props {
  /** What may be dropped, as it is said while a file is over the page: `a list as CSV`. */
  readonly what: string
  readonly accept: Accept
  readonly onFiles: (files: readonly File[]) => void
  readonly className?: string | undefined
  readonly children: ReactNode
}

/** Part of a page, or all of it, on which files can be dropped. Whoever chooses them otherwise loses nothing. */
export function DropPlace({ what, accept, onFiles, className, children }: Props) {
  const [refused, setRefused] = useState<string>()
  const { getRootProps, isDragActive } = useDropzone({
    accept,
    // Clicks and keys are for what stands on the page: beside it there is always a field to choose a file in.
    noClick: true,
    noKeyboard: true,
    onDrop: (files, rejections) => {
      const name = rejections[0]?.file.name
      setRefused(name)
      if (files.length > 0) onFiles(files)
    },
    onDragEnter: () => setRefused(undefined),
  })
  return (
    <div {...getRootProps({ className: `${classes.place} ${className ?? ''}`, role: undefined })}>
      {refused !== undefined && (
        <p className={classes.refused} role="alert">
          {refused} is not {what}: nothing was taken from it.
        </p>
      )}
      {children}
      {isDragActive && (
        <p className={classes.over}>
          <b>Drop {what} here</b>
        </p>
      )}
    </div>
  )
}
