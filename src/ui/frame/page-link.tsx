/**
 * A link to another page. Nothing is fetched ahead of a click: the server is this laptop, which would make all six
 * stages at every page, and what it made would be old a moment later.
 */
import Link from 'next/link'
import type { ComponentProps } from 'react'

export function PageLink(props: ComponentProps<typeof Link>) {
  return <Link prefetch={false} {...props} />
}
