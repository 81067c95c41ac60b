'use client'
/** Fields that stand in the text of the brief, each by the path of its value. */
import { useState } from 'react'
import { days } from '../../core/catalogue/values'
import { useBrief } from './brief-draft'
import { valueAt } from './brief-path'
import classes from './fields.module.css'

interface FieldProps {
  readonly path: string
  readonly label: string
  readonly placeholder?: string
}

/** How a kind of value is written as text, and read back. */
const kinds = {
  text: { write: (value: unknown) => String(value ?? ''), read: (text: string): unknown => text },
  optional: {
    write: (value: unknown) => String(value ?? ''),
    read: (text: string): unknown => (text.trim() === '' ? null : text.trim()),
  },
  number: {
    write: (value: unknown) => (typeof value === 'number' ? String(value) : ''),
    read: (text: string): unknown => {
      const digits = text.replace(/[^\d-]/g, '')
      return digits === '' || digits === '-' ? null : Number(digits)
    },
  },
  list: {
    write: (value: unknown) => (Array.isArray(value) ? value.join(', ') : ''),
    read: (text: string): unknown =>
      text
        .split(/[,\s]+/)
        .map((item) => item.trim())
        .filter((item) => item !== ''),
  },
} as const

export function TextField({
  path,
  label,
  placeholder,
  kind = 'text',
  face = 'text',
}: FieldProps & { kind?: keyof typeof kinds; face?: 'text' | 'mono' }) {
  const { round } = useBrief()
  return (
    <TypedText
      key={`${path} ${round}`}
      path={path}
      label={label}
      kind={kind}
      face={face}
      {...(placeholder === undefined ? {} : { placeholder })}
    />
  )
}

/** Holds its own text, so that what is typed half-way stays as it is typed. */
function TypedText({
  path,
  label,
  placeholder,
  kind,
  face,
}: FieldProps & { kind: keyof typeof kinds; face: 'text' | 'mono' }) {
  const { brief, change, faults } = useBrief()
  const { read, write } = kinds[kind]
  const value = valueAt(brief, path)
  const [typed, setTyped] = useState(() => write(value))
  const faulty = faults.some(
    (fault) => fault.weight === 'mend' && (fault.field === path || fault.field.startsWith(`${path}.`)),
  )
  return (
    <input
      className={classes.field}
      data-face={face}
      data-kind={kind}
      aria-label={label}
      aria-invalid={faulty || undefined}
      title={label}
      placeholder={placeholder ?? label.toLowerCase()}
      autoComplete="off"
      spellCheck={false}
      inputMode={kind === 'number' ? 'numeric' : 'text'}
      // A value that came from elsewhere, a mend or a sibling field, shows itself.
      value={
        JSON.stringify(read(typed)) === JSON.stringify(value ?? (kind === 'text' ? '' : null)) ? typed : write(value)
      }
      onChange={(event) => {
        setTyped(event.currentTarget.value)
        change(path, read(event.currentTarget.value))
      }}
    />
  )
}

export interface Option {
  readonly value: string
  readonly words: string
}

/** The days of the week, as a field offers them. */
export const dayOptions: readonly Option[] = days.map((day) => ({ value: day, words: day }))

/** One of a few words in the sentence. */
export function Choice({
  path,
  label,
  options,
  read = (value) => value,
  write = String,
}: FieldProps & { options: readonly Option[]; read?: (value: string) => unknown; write?: (value: unknown) => string }) {
  const { brief, change, faults } = useBrief()
  const faulty = faults.some((fault) => fault.weight === 'mend' && fault.field === path)
  return (
    <select
      className={classes.choice}
      aria-label={label}
      aria-invalid={faulty || undefined}
      title={label}
      value={write(valueAt(brief, path))}
      onChange={(event) => change(path, read(event.currentTarget.value))}
    >
      {options.map(({ value, words }) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </select>
  )
}

/** Two words for yes and no. */
export function YesNo({ path, label, yes, no }: FieldProps & { yes: string; no: string }) {
  return (
    <Choice
      path={path}
      label={label}
      read={(value) => value === 'yes'}
      write={(value) => (value === true ? 'yes' : 'no')}
      options={[
        { value: 'yes', words: yes },
        { value: 'no', words: no },
      ]}
    />
  )
}

/** Several of a few, as boxes to tick. */
export function Several({ path, label, options }: FieldProps & { options: readonly Option[] }) {
  const { brief, change } = useBrief()
  const chosen = (valueAt(brief, path) as readonly string[] | undefined) ?? []
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand within a sentence
    <span role="group" className={classes.several} aria-label={label}>
      {options.map(({ value, words }) => (
        <label key={value}>
          <input
            type="checkbox"
            checked={chosen.includes(value)}
            onChange={(event) =>
              change(
                path,
                event.currentTarget.checked
                  ? options.map((each) => each.value).filter((each) => each === value || chosen.includes(each))
                  : chosen.filter((each) => each !== value),
              )
            }
          />
          {words}
        </label>
      ))}
    </span>
  )
}
