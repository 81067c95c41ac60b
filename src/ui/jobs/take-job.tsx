'use client'
import { Button, Modal, PasswordInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { sendFile } from '../live/send-file'
import { useOrder } from '../live/use-order'
import classes from './jobs-view.module.css'

/** Bytes at the end of a job file that hold its secrets. */
const endBytes = 512 * 1024

/** A job from a file that another Air Muster wrote. */
export function TakeJob() {
  const router = useRouter()
  const [opened, dialog] = useDisclosure(false)
  const { order, pending, fault } = useOrder()
  const [file, setFile] = useState<File>()
  const [sealed, setSealed] = useState(false)
  const [passphrase, setPassphrase] = useState('')
  const asksPassphrase = sealed || fault?.field === 'passphrase'
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
    <>
      <Button variant="default" onClick={dialog.open}>
        Take one in from a file
      </Button>
      <Modal opened={opened} onClose={dialog.close} title="A job from a file">
        <form
          className={classes.form}
          onSubmit={(event) => {
            event.preventDefault()
            take()
          }}
        >
          <label>
            The file{' '}
            <input
              type="file"
              accept=".json,application/json"
              onChange={async (event) => {
                const chosen = event.currentTarget.files?.[0]
                setFile(chosen)
                // Its last part: the secrets stand at the end of a job file.
                setSealed(chosen !== undefined && /"secrets"\s*:\s*\{/.test(await chosen.slice(-endBytes).text()))
              }}
            />
          </label>
          {asksPassphrase && (
            <PasswordInput
              label="Passphrase of its secrets"
              autoComplete="off"
              value={passphrase}
              error={fault?.field === 'passphrase' ? fault.sentence : undefined}
              onChange={(event) => setPassphrase(event.currentTarget.value)}
            />
          )}
          {fault && fault.field !== 'passphrase' && <p className={classes.fault}>{fault.sentence}</p>}
          <Button type="submit" disabled={pending || !file || (asksPassphrase && passphrase === '')}>
            {pending ? 'Taking it in …' : 'Take it in'}
          </Button>
        </form>
      </Modal>
    </>
  )
}
