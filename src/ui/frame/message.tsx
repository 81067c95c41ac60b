'use client'
import { Button } from '@mantine/core'
import classes from './frame.module.css'
import { PageLink } from './page-link'

/** A page that has only a sentence to say, and what to do next. */
export function Message({
  title,
  words,
  link,
  act,
}: {
  title: string
  words: string
  link?: { href: string; words: string }
  act?: { words: string; run: () => void }
}) {
  return (
    <main className={classes.message}>
      <h1>{title}</h1>
      <p>{words}</p>
      {link && <PageLink href={link.href}>{link.words}</PageLink>}
      {act && <Button onClick={act.run}>{act.words}</Button>}
    </main>
  )
}
