'use client'
import { Message } from '../ui/frame/message'

/** Whatever went wrong on a page: nothing is lost, since everything lies in the database. */
export default function Failed({ reset }: { reset: () => void }) {
  return (
    <Message
      title="This page could not be shown."
      words="Nothing is lost: a muster goes on by itself. If it happens again, look whether npm run demo still runs."
      act={{ words: 'Try again', run: reset }}
    />
  )
}
