'use client'
import { Button } from '@mantine/core'
import classes from './standing-note.module.css'
import type { Standing } from './use-autosave'

/** Whether everything is saved; and the way out where somebody else was faster. */
export function StandingNote({ standing, onLoad }: { standing: Standing; onLoad: () => void }) {
  return (
    <>
      <span className={classes.standing} data-kind={standing.kind} role="status">
        {standing.words}
      </span>
      {standing.kind === 'refused' && (
        <Button variant="default" size="compact-sm" onClick={onLoad}>
          Load what is saved
        </Button>
      )}
    </>
  )
}
