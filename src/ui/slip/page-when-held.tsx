'use client'
import { Button, Modal } from '@mantine/core'
import { useState, useTransition } from 'react'
import { showPageWhenHeld } from '../../actions/muster-actions'
import type { PageWhenHeld as Page } from '../../core/showing/file-from-pages'
import { heldPageWords } from '../../words/en/held'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import classes from './slip.module.css'

/** What the unit's own pages showed when it was held. */
export function PageWhenHeld({ unit }: { unit: { id: string; name: string } }) {
  const { job } = useJob()
  const [page, setPage] = useState<Page>()
  const [note, setNote] = useState<string>()
  const [pending, start] = useTransition()
  const show = () =>
    start(async () => {
      const answer = await showPageWhenHeld(job.slug, unit.id)
      setPage(answer.ok ? answer.value : undefined)
      setNote(answer.ok ? undefined : sentence(answer.told))
    })
  return (
    <div>
      <Button variant="default" disabled={pending} onClick={show}>
        {heldPageWords.show}
      </Button>
      {note && (
        <p role="alert" className={sheet.fault}>
          {note}
        </p>
      )}
      <Modal
        opened={page !== undefined}
        onClose={() => setPage(undefined)}
        title={heldPageWords.title(unit.name)}
        size="xl"
      >
        {page && (
          <>
            <p className="soft">{heldPageWords.about}</p>
            {/* biome-ignore lint/performance/noImgElement: it stands in the answer itself, and is shown once */}
            <img className={classes.page} src={`data:image/jpeg;base64,${page.base64}`} alt={heldPageWords.alt} />
            <details>
              <summary>{heldPageWords.words}</summary>
              <ul>
                {page.words.map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            </details>
          </>
        )}
      </Modal>
    </div>
  )
}
