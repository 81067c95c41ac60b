'use client'
import { Button, Modal, PasswordInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useState } from 'react'
import { useJob } from '../live/job-provider'
import classes from './brief.module.css'

const shortest = 10

/** The whole job as one file, with its secrets sealed or without them. */
export function JobFile() {
  const { job } = useJob()
  const [opened, dialog] = useDisclosure(false)
  const [passphrase, setPassphrase] = useState('')
  const short = passphrase !== '' && passphrase.length < shortest
  return (
    <>
      <Button variant="default" onClick={dialog.open}>
        Job as a file
      </Button>
      <Modal opened={opened} onClose={dialog.close} title="The whole job as a file">
        <form
          method="post"
          action={`/api/jobs/${job.slug}/job-file`}
          className={classes.jobFile}
          onSubmit={dialog.close}
        >
          <p>Brief, kit, floors and locks. Another Air Muster takes it in on its Jobs page.</p>
          <PasswordInput
            name="passphrase"
            label="Passphrase that seals the secrets"
            description="Leave it empty, and the secrets stay here."
            autoComplete="new-password"
            value={passphrase}
            error={short ? `${shortest} characters at least: ${shortest - passphrase.length} more.` : undefined}
            onChange={(event) => setPassphrase(event.currentTarget.value)}
          />
          <Button type="submit" disabled={short}>
            {passphrase === '' ? 'Save without the secrets' : 'Save with the secrets sealed'}
          </Button>
        </form>
      </Modal>
    </>
  )
}
