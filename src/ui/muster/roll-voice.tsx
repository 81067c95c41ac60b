'use client'
import { useEffect, useRef, useState } from 'react'
import { answers, heldStep, isChanged, waitsForHands } from '../../core/muster/roll'
import { useJob } from '../live/job-provider'

/** Says to screen readers what changed for the ears: who answers, who is held. Not every step. */
export function RollVoice() {
  const { units, roll } = useJob()
  const said = useRef(new Map<string, string>())
  const [words, setWords] = useState('')
  useEffect(() => {
    const news: string[] = []
    for (const unit of units) {
      const row = roll.rows.get(unit.id)
      const state = answers(row)
        ? 'answers'
        : waitsForHands(row)
          ? 'is set by hand'
          : heldStep(row)
            ? 'is held'
            : isChanged(row)
              ? 'was changed since'
              : ''
      if (state !== '' && said.current.has(unit.id) && said.current.get(unit.id) !== state)
        news.push(`${unit.name} ${state}.`)
      said.current.set(unit.id, state)
    }
    if (news.length > 0) setWords(news.join(' '))
  }, [units, roll])
  return (
    <div className="visually-hidden" role="status" aria-live="polite">
      {words}
    </div>
  )
}
