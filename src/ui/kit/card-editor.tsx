'use client'
import { useRef } from 'react'
import type { CardFault } from '../../core/kit/kit-card'
import sheetClasses from '../theme/sheet.module.css'
import classes from './kit.module.css'

/** A card as YAML, with its lines numbered and the faulty ones marked. */
export function CardEditor({
  yaml,
  faults,
  onChange,
}: {
  yaml: string
  faults: readonly CardFault[]
  onChange: (yaml: string) => void
}) {
  const numbers = useRef<HTMLPreElement>(null)
  const faulty = new Map(faults.map((fault) => [fault.line, fault.reason]))
  const lines = yaml.split('\n').length
  return (
    <div className={`${sheetClasses.sheet} ${classes.editor}`}>
      <pre ref={numbers} aria-hidden="true" className={classes.numbers}>
        {Array.from({ length: lines }, (_, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its number
          <span key={at} data-fault={faulty.has(at + 1)}>
            {faulty.has(at + 1) ? '!' : ' '}
            {String(at + 1).padStart(3)}
            {'\n'}
          </span>
        ))}
      </pre>
      <textarea
        aria-label="The card as YAML"
        aria-invalid={faults.length > 0 || undefined}
        spellCheck={false}
        wrap="off"
        value={yaml}
        onChange={(event) => onChange(event.currentTarget.value)}
        onScroll={(event) => {
          if (numbers.current) numbers.current.scrollTop = event.currentTarget.scrollTop
        }}
      />
    </div>
  )
}
