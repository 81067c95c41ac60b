import type { Outcome } from '../../core/config/outcomes'

/** Proven is the one tick; what was written and not read back is half a disc, work for hands an empty square. */
const shapes: Readonly<Record<Outcome['kind'], React.ReactNode>> = {
  proven: <path d="M2 6.5 5 9.5 10 2.5" fill="none" stroke="var(--leaf)" strokeWidth="2" />,
  written: (
    <>
      <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--ink)" strokeWidth="1.2" />
      <path d="M6 1.5a4.5 4.5 0 0 0 0 9z" fill="var(--ink)" />
    </>
  ),
  'by-hand': <rect x="1.5" y="1.5" width="9" height="9" fill="none" stroke="var(--brass)" strokeWidth="1.8" />,
  'not-for-it': <path d="M2 6h8" stroke="var(--soft)" strokeWidth="1.4" />,
  open: <circle cx="6" cy="6" r="1.6" fill="var(--soft)" />,
}

export function OutcomeMark({ kind }: { kind: Outcome['kind'] }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
      {shapes[kind]}
    </svg>
  )
}
