import type { ReactNode } from 'react'

interface Props {
  /** What is in it, for those who come to it by keys. */
  readonly label: string
  readonly className?: string | undefined
  readonly children: ReactNode
}

/** A part that scrolls by itself: whoever has no pointer reaches it with Tab, and scrolls with the arrows. */
export function Scrollable({ label, className, children }: Props) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: without it nobody scrolls here by keys
    <section className={className} aria-label={label} tabIndex={0}>
      {children}
    </section>
  )
}
