/**
 * Cards as they were written before models listed what they can take: read as what was set on them then. A card that
 * lies in somebody's folder does not stop to count because the program became newer.
 */
import { type Fields, isFields, renamed } from '../input/renamed'

const setThen = [
  'unit.name',
  'unit.country',
  'clock.time-zone',
  'clock.ntp-servers',
  'management.method',
  'management.address',
  'management.prefix',
  'management.gateway',
  'management.dns-servers',
  'admin.user',
  'admin.password',
  'services.lights',
  'network.ssid',
  'network.enabled',
  'network.bands',
  'network.security',
  'network.passphrase',
  'network.vlan',
  'network.hidden',
  'network.isolation',
  'radio.enabled',
  'radio.channel',
  'radio.width',
  'radio.power',
] as const

/** What is said of a prompt stands in one place now. */
function withPrompt({ session, prompt, asks, ...dialect }: Fields): Fields {
  return session === 'prompt' ? { ...dialect, prompt: { ends: prompt, asks } } : dialect
}

/** The card in today's form; itself, where it is that already or no card at all. */
export function modernCard(written: unknown): unknown {
  const card = renamed(written, 'place', 'environment')
  // So the dialect of commands was called.
  if (isFields(card) && isFields(card.dialect) && card.dialect.kind === 'cli')
    return modernCard({ ...card, dialect: { ...card.dialect, kind: 'prompt' } })
  if (isFields(card) && isFields(card.dialect) && card.dialect.kind === 'prompt' && 'dialogues' in card.dialect)
    return modernCard({ ...card, dialect: { kind: 'unspoken' } })
  if (isFields(card) && isFields(card.dialect) && card.dialect.kind === 'prompt' && 'session' in card.dialect)
    return modernCard({ ...card, dialect: withPrompt(card.dialect) })
  if (!isFields(card) || !isFields(card.quirks) || 'does' in card) return card
  const { quirks, ...rest } = card
  const limits = isFields(card.limits) ? card.limits : {}
  const { features: _features, ...kept } = limits
  const hides = quirks.hidesPassphrases === true
  return {
    ...rest,
    limits: kept,
    can: Object.fromEntries(
      setThen.map((id) => [id, id === 'network.passphrase' && hides ? { readable: 'no' } : null]),
    ),
    does: {
      applies: quirks.appliesTogether === true ? 'staged' : 'at-once',
      saves: quirks.mustSave === true ? 'on-command' : 'itself',
      country: quirks.countryLocked ?? 'free',
      countryResetsChannels: quirks.countryResetsChannels ?? false,
      ignoresPing: quirks.ignoresPing ?? false,
      slow: quirks.slowPages ?? false,
    },
  }
}
