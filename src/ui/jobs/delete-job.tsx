'use client'
import { Button, Modal, TextInput, UnstyledButton } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useState } from 'react'
import { deleteJobAction } from '../../actions/job-actions'
import { sentence } from '../../words/en/sentence'
import { useOrder } from '../live/use-order'
import classes from './jobs-view.module.css'

/** Deletes a job when its name is typed: a slip of the hand deletes nothing. */
export function DeleteJob({ id, name }: { id: number; name: string }) {
  const [opened, dialog] = useDisclosure(false)
  const [typed, setTyped] = useState('')
  const { order, pending, fault } = useOrder()
  const remove = () =>
    order(async () => {
      const outcome = await deleteJobAction(id, typed)
      if (outcome.ok) dialog.close()
      return outcome
    })
  return (
    <>
      <UnstyledButton className={classes.remove ?? ''} onClick={dialog.open} aria-label={`Delete ${name}`}>
        Delete
      </UnstyledButton>
      <Modal opened={opened} onClose={dialog.close} title={`Delete ${name}`}>
        <form
          className={classes.form}
          onSubmit={(event) => {
            event.preventDefault()
            remove()
          }}
        >
          <p>
            Brief, kit list, plan, floors, passwords and the units’ copies are gone for good; save the job as a file
            first if you may need them. Its log is kept. The units themselves stay as they are.
          </p>
          <TextInput
            label={`Type its name: ${name}`}
            data-autofocus
            autoComplete="off"
            value={typed}
            error={fault && sentence(fault.told)}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
          <Button type="submit" color="var(--flare)" disabled={pending || typed.trim() !== name}>
            Delete the job
          </Button>
        </form>
      </Modal>
    </>
  )
}
