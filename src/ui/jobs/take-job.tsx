'use client'
import { Button, FileInput, Modal, PasswordInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useRouter } from 'next/navigation'
import { type ReactNode, useState } from 'react'
import { sentence } from '../../words/en/sentence'
import { DropPlace } from '../frame/drop-place'
import { endingsOf, jobFiles } from '../frame/file-kinds'
import { sendFile } from '../live/send-file'
import { useOrder } from '../live/use-order'
import classes from './jobs-view.module.css'

/** Bytes at the end of a job file that hold its secrets. */
const endBytes = 512 * 1024

/**
 * A job from a file that another Air Muster wrote: chosen, or dropped on the page around.
 *
 * @param children  the page, given the button that opens the dialog
 */
export function TakeJob({ children }: { children: (button: ReactNode) => ReactNode }) {
  const router = useRouter()
  const [opened, dialog] = useDisclosure(false)
  const { order, pending, fault } = useOrder()
  const [file, setFile] = useState<File>()
  const [sealed, setSealed] = useState(false)
  const [passphrase, setPassphrase] = useState('')
  const asksPassphrase = sealed || fault?.field === 'passphrase'
  const choose = async (chosen: File | undefined): Promise<void> => {
    setFile(chosen)
    // Its last part: the secrets stand at the end of a job file.
    setSealed(chosen !== undefined && /"secrets"\s*:\s*\{/.test(await chosen.slice(-endBytes).text()))
  }
  const take = () =>
    order(async () => {
      const outcome = await sendFile<string>('job-file', file ?? new Blob(), {
        'content-type': 'application/json',
        'x-passphrase': passphrase,
      })
      if (outcome.ok) router.push(`/jobs/${outcome.value}/brief`)
      return outcome
    })
  return (
    <DropPlace
      what="a job as JSON"
      accept={jobFiles}
      className={classes.drop}
      onFiles={([dropped]) => {
        void choose(dropped)
        dialog.open()
      }}
    >
      {children(
        <Button variant="default" onClick={dialog.open}>
          Take one in from a file
        </Button>,
      )}
      <Modal opened={opened} onClose={dialog.close} title="A job from a file">
        <form
          className={classes.form}
          onSubmit={(event) => {
            event.preventDefault()
            take()
          }}
        >
          <FileInput
            label="The file"
            placeholder="Choose it, or drop it here"
            accept={endingsOf(jobFiles)}
            value={file ?? null}
            onChange={(chosen) => void choose(chosen ?? undefined)}
          />
          {asksPassphrase && (
            <PasswordInput
              label="Passphrase of its secrets"
              autoComplete="off"
              value={passphrase}
              error={fault?.field === 'passphrase' ? sentence(fault.told) : undefined}
              onChange={(event) => setPassphrase(event.currentTarget.value)}
            />
          )}
          {fault && fault.field !== 'passphrase' && <p className={classes.fault}>{sentence(fault.told)}</p>}
          <Button type="submit" disabled={pending || !file || (asksPassphrase && passphrase === '')}>
            {pending ? 'Taking it in …' : 'Take it in'}
          </Button>
        </form>
      </Modal>
    </DropPlace>
  )
}
