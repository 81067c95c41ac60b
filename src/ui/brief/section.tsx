'use client'
import type { ReactNode } from 'react'
import type { BriefSection } from '../../core/brief/meaning'
import { asText } from '../../core/message/message'
import { sentence } from '../../words/en/sentence'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'

/** A part of the page for the client, with what it means at its side. */
export function Section({
  id,
  title,
  act,
  children,
}: {
  id: BriefSection
  title: string
  act?: ReactNode
  children: ReactNode
}) {
  const { meanings } = useBrief()
  const here = meanings.filter((meaning) => meaning.section === id)
  return (
    <section className={classes.section} aria-labelledby={`brief-${id}`}>
      <div className={classes.text}>
        <h2 id={`brief-${id}`}>
          {title}
          {act}
        </h2>
        {children}
      </div>
      <aside className={classes.meaning} aria-label={`What it means: ${title}`}>
        {here.map((meaning) => (
          <p key={asText(meaning)}>{sentence(meaning)}</p>
        ))}
      </aside>
    </section>
  )
}
