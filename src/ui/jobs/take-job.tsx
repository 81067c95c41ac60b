'use client'
import { Button, Modal, PasswordInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { importJobAction } from '../../app/actions/job-actions'
import { useOrder } from '../live/use-order'
import classes from './jobs-view.module.css'

/** A job from a file that another Air Muster wrote. */
export function TakeJob() {
  const router = useRouter()
  const [opened, dialog] = useDisclosure(false)
  const { order, pending, fault } = useOrder()
  const [text, setText] = useState('')
  const [passphrase, setPassphrase] = useState('')
  const sealed = /"secrets"\s*:\s*\{/.test(text)
  const take = () =>
    order(async () => {
      const outcome = await importJobAction(text, passphrase)
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
                const file = event.currentTarget.files?.[0]
                if (file) setText(await file.text())
              }}
            />
          </label>
          {sealed && (
            <PasswordInput
              label="Passphrase of its secrets"
              autoComplete="off"
              value={passphrase}
              error={fault?.field === 'passphrase' ? fault.sentence : undefined}
              onChange={(event) => setPassphrase(event.currentTarget.value)}
            />
          )}
          {fault && fault.field !== 'passphrase' && <p className={classes.fault}>{fault.sentence}</p>}
          <Button type="submit" disabled={pending || text === '' || (sealed && passphrase === '')}>
            {pending ? 'Taking it in …' : 'Take it in'}
          </Button>
        </form>
      </Modal>
    </>
  )
}
