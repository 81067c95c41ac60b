/** Who a box on the wire is, in words: as sure as it is. */
import { type EvidenceKind, howSure, type Recognised } from '../../core/kit/recognise'

const evidenceWords: Readonly<Record<EvidenceKind, string>> = {
  realm: 'sign-in',
  sysObjectId: 'SNMP',
  banner: 'SSH banner',
  title: 'page title',
  certificate: 'certificate',
  lldp: 'LLDP',
  mac: 'MAC',
}

/**
 * A model as sure as it is, for people: its name where two things agree, else with what there is for it; undefined
 * where nothing tells.
 */
export function modelWords({
  model,
  by,
  perhaps,
}: Recognised & { readonly perhaps?: string | undefined }): string | undefined {
  if (model === null) return perhaps === undefined ? undefined : `perhaps ${perhaps}, by MAC alone`
  return by.length > 0 && howSure(by) === 'likely' ? `probably ${model}, ${evidenceText(by)}` : model
}

/** What speaks for a model, for people: `by sign-in, certificate and MAC`; empty where nothing does. */
export function evidenceText(by: readonly EvidenceKind[]): string {
  const words = by.map((kind) => evidenceWords[kind])
  const last = words.at(-1)
  if (last === undefined) return ''
  return words.length === 1 ? `by ${last} alone` : `by ${words.slice(0, -1).join(', ')} and ${last}`
}
