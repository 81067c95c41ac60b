'use client'
/**
 * The brief while it is written: every change is kept at once here, can be undone, and is saved by itself as soon as
 * it is whole. What is not whole yet stays in this browser, even over a reload.
 */
import { createContext, type ReactNode, useContext, useMemo, useRef, useState } from 'react'
import { z } from 'zod'
import { saveBriefAction } from '../../actions/brief-actions'
import { type Brief, briefSchema } from '../../core/brief/brief'
import { readBriefDraft } from '../../core/brief/draft'
import { briefMeaning, type Meaning } from '../../core/brief/meaning'
import { modelsOf } from '../../core/kit/kit-card'
import { fromText, message } from '../../core/message/message'
import type { CountryRules } from '../../core/regulatory/database'
import { applyMend, type BriefFault } from '../../core/review/fault'
import { reviewBrief } from '../../core/review/review'
import { useJob } from '../live/job-provider'
import { type Standing, useAutosave } from '../live/use-autosave'
import { useHistory } from '../live/use-history'
import { useSessionDraft } from '../live/use-session-draft'
import { wholeAgain, withValue } from './brief-path'

export interface BriefDraft {
  readonly brief: Brief
  /** Counted up whenever fields that hold their own text must begin anew. */
  readonly round: number
  readonly faults: readonly BriefFault[]
  readonly meanings: readonly Meaning[]
  /** Rules of its country; undefined for one that has none. */
  readonly country: CountryRules | undefined
  readonly standing: Standing
  readonly undoable: number
  change(path: string, value: unknown): void
  mend(set: readonly { readonly path: string; readonly value: unknown }[]): void
  undo(): void
  /** Throws the draft away for what is saved: after somebody else has changed it. */
  reload(): void
}

const DraftContext = createContext<BriefDraft | undefined>(undefined)

export function useBrief(): BriefDraft {
  const draft = useContext(DraftContext)
  if (!draft) throw new Error('useBrief outside of a BriefDraftProvider')
  return draft
}

const restMs = 600
const draftSchema = z.object({ version: z.int(), brief: z.unknown() })

export function BriefDraftProvider({
  rules,
  children,
}: {
  rules: ReadonlyMap<string, CountryRules>
  children: ReactNode
}) {
  const { job, units, cards, weak } = useJob()
  const [brief, setBrief] = useState<Brief>(job.brief)
  const [round, setRound] = useState(0)
  const history = useHistory<Brief>()
  /** What the server has, and its number. */
  const [kept, setKept] = useState({ text: JSON.stringify(job.brief), version: job.version })
  const storageKey = `air-muster brief ${job.slug}`
  const again = () => setRound((count) => count + 1)

  const parsed = useMemo(() => briefSchema.safeParse(brief), [brief])
  const text = useMemo(() => JSON.stringify(brief), [brief])
  const changed = text !== kept.text
  // What was typed before a reload and was not whole yet; not over what somebody else has saved meanwhile.
  const begun = useRef(kept.version)
  const draft = useSessionDraft(storageKey, {
    value: changed ? { version: kept.version, brief } : undefined,
    read: (value) => {
      const found = draftSchema.safeParse(value).data
      const before = found?.version === begun.current ? readBriefDraft(found.brief) : undefined
      return before && { version: begun.current, brief: before }
    },
    onFound: (found) => {
      setBrief(found.brief)
      again()
    },
  })

  const autosave = useAutosave({
    pending: useMemo(
      () => (changed && parsed.success ? { text, brief: parsed.data } : undefined),
      [changed, text, parsed],
    ),
    restMs,
    save: (pending) => saveBriefAction(job.slug, kept.version, pending.brief),
    onSaved: (version, pending) => setKept({ text: pending.text, version: version ?? kept.version }),
  })
  const { saving, refusal } = autosave

  const lastWhole = useRef(job.brief)
  const whole = useMemo(
    () => (parsed.success ? parsed.data : wholeAgain(brief, lastWhole.current, parsed.error.issues)),
    [brief, parsed],
  )
  lastWhole.current = whole
  const { unfinished, faults, meanings } = useMemo(() => {
    const models = modelsOf(units, cards)
    const country = rules.get(brief.country)
    const issues = parsed.success ? [] : parsed.error.issues
    const unfinished = issues.map(
      (issue): BriefFault => ({
        ...message('not-typed-out', { told: fromText(issue.message) }),
        field: issue.path.join('.'),
        weight: 'mend',
      }),
    )
    return {
      unfinished,
      faults: [...unfinished, ...reviewBrief({ brief: whole, country, models, weak, today: new Date() })],
      meanings: briefMeaning(whole, country),
    }
  }, [parsed, whole, brief.country, rules, units, cards, weak])

  const standing: Standing = refusal
    ? { kind: 'refused', words: refusal }
    : !parsed.success
      ? {
          kind: 'unfinished',
          words: `Not saved yet: ${unfinished.length} ${unfinished.length === 1 ? 'field' : 'fields'} to mend`,
        }
      : saving || changed
        ? { kind: 'saving', words: 'Saving …' }
        : { kind: 'saved', words: 'Saved' }

  const value: BriefDraft = {
    brief,
    round,
    faults,
    meanings,
    country: rules.get(brief.country),
    standing,
    undoable: history.undoable,
    change: (path, next) => {
      autosave.forgive()
      history.push(brief, path)
      setBrief(withValue(brief, path, next))
    },
    mend: (set) => {
      autosave.forgive()
      history.push(brief)
      setBrief(applyMend(brief, set))
      again()
    },
    undo: () => {
      const before = history.pop()
      if (!before) return
      autosave.forgive()
      setBrief(before)
      again()
    },
    reload: () => {
      draft.forget()
      location.reload()
    },
  }
  return <DraftContext value={value}>{children}</DraftContext>
}
