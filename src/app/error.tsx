'use client'
import { useInterval } from '@mantine/hooks'
import { useRouter } from 'next/navigation'
import { startTransition } from 'react'
import { Message } from '../ui/frame/message'

/** A database that is away is mostly back within seconds: started again, or no longer kept from running. */
const tryAgainMs = 3000
const words = [
  'Nothing is lost: a muster goes on by itself.',
  'This page tries again by itself; if it stays, look whether npm run demo still runs.',
].join(' ')

/** Whatever went wrong on a page: nothing is lost, since everything lies in the database. */
export default function Failed({ reset }: { reset: () => void }) {
  const router = useRouter()
  const tryAgain = (): void =>
    startTransition(() => {
      router.refresh()
      reset()
    })
  useInterval(tryAgain, tryAgainMs, { autoInvoke: true })
  return <Message title="This page could not be shown." words={words} act={{ words: 'Try now', run: tryAgain }} />
}
