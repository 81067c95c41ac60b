'use client'
import { createContext, useContext } from 'react'
import type { CountryRules } from '../../../core/regulatory/database'

export interface NamedRules {
  readonly code: string
  readonly name: string
  readonly rules: CountryRules
}

/** The rules of every country, by name. */
export const RulesContext = createContext<readonly NamedRules[]>([])

export function useAllRules(): readonly NamedRules[] {
  return useContext(RulesContext)
}
