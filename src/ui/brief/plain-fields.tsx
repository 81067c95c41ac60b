'use client'
import { Fragment } from 'react'
import { plainsOf } from '../../core/catalogue/catalogue'
import type { Field, Section } from '../../core/catalogue/plain'
import { briefFields } from '../../words/en/brief-fields'
import { useBrief } from './brief-draft'
import { valueAt } from './brief-path'
import { Choice, TextField } from './fields'

interface Props {
  readonly section: Section
  /** Path of the part of the brief that holds them. */
  readonly path: string
  readonly kinds: readonly Field['kind'][]
}

const yesNo = {
  read: (value: string) => value === 'yes',
  write: (value: unknown) => (value === true ? 'yes' : 'no'),
}

/** Plain settings of one part of the brief, a sentence each, as their descriptors and words say. */
export function PlainFields({ section, path, kinds }: Props) {
  const { brief } = useBrief()
  return plainsOf(section)
    .filter(({ setting }) => kinds.includes(setting.field.kind))
    .map(({ id, setting: { field } }) => {
      const { label, before, choices = {}, after, none = 'none', afterNone } = briefFields[id]
      const at = `${path}.${field.key}`
      const isNone = valueAt(brief, at) === null
      const end = isNone ? afterNone : after
      return (
        <Fragment key={id}>
          {before}{' '}
          {field.kind === 'number' ? (
            <TextField path={at} label={label} kind="number" face="mono" placeholder={none} />
          ) : (
            <Choice
              path={at}
              label={label}
              options={Object.entries(choices).map(([value, words]) => ({ value, words }))}
              {...(field.kind === 'flag' ? yesNo : {})}
            />
          )}
          {end && ` ${end}`}.{' '}
        </Fragment>
      )
    })
}

/** Paths of the same, for the faults that stand under them. */
export const plainPaths = ({ section, path, kinds }: Props): string[] =>
  plainsOf(section).flatMap(({ setting: { field } }) => (kinds.includes(field.kind) ? [`${path}.${field.key}`] : []))

/** The values with which they begin. */
export const plainDefaults = ({ section, kinds }: Omit<Props, 'path'>): Record<string, unknown> =>
  Object.fromEntries(
    plainsOf(section).flatMap(({ setting: { field } }) =>
      kinds.includes(field.kind) ? [[field.key, field.schema.parse(undefined)]] : [],
    ),
  )
