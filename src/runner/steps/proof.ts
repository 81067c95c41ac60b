/** Proof: each point of it is a check with what was expected and what was seen; one bad one holds the unit. */
import { compare } from '../../core/config/compare'
import type { Check } from '../../core/muster/events'
import { keepBackup } from '../../store/secrets'
import { held } from '../explain'
import type { UnitRun } from '../unit-run'
import { opens } from './password'

interface Observation {
  readonly what: string
  readonly expected: string
  readonly observed: string
}

export async function proof(run: UnitRun): Promise<string> {
  const bad: Check[] = []
  for (const look of checks) {
    const { what, expected, observed } = await look(run)
    const check: Check = { what, expected, observed, verdict: observed === expected ? 'good' : 'bad', at: Date.now() }
    run.check(check)
    if (check.verdict === 'bad') bad.push(check)
  }
  const [first] = bad
  if (first)
    throw held(
      `${first.what}: ${first.observed}.`,
      ['Muster it again: what is right is left alone.', 'If it stays, look at the same point by hand.'],
      bad.map(({ what, expected, observed }) => `${what}: ${observed}, expected ${expected}.`).join(' '),
    )
  await keepBackup(run.store, run.log.jobId, run.unit.mac, 'as-left', await run.dialect.backup(), new Date())
  await run.log.append({ kind: 'kept', unit: run.unit.id, copy: 'as-left' })
  await run.log.append({ kind: 'proven', unit: run.unit.id, asked: run.asked })
  return `${checks.length} checks good`
}

const checks: readonly ((run: UnitRun) => Promise<Observation>)[] = [
  async (run) => ({
    what: `ARP at ${run.plan.address}`,
    expected: run.unit.mac,
    observed: (await run.host.arp(run.plan.address)).join(', ') || 'no answer',
  }),
  async (run) => ({
    what: 'Ping',
    expected: run.card.quirks.ignoresPing ? 'not asked' : 'answers',
    observed: run.card.quirks.ignoresPing
      ? 'not asked'
      : (await (await run.lane(run.plan.address)).ping())
        ? 'answers'
        : 'no answer',
  }),
  async (run) => ({
    what: 'New login over HTTPS',
    expected: 'accepted',
    observed: (await loginOpens(run, 'new')) ? 'accepted' : 'refused',
  }),
  async (run) => ({
    what: 'Factory login',
    expected: 'refused',
    observed: (await loginOpens(run, 'factory')) ? 'accepted' : 'refused',
  }),
  async (run) => ({
    what: `Factory address ${run.card.factory.address}`,
    expected: 'left',
    observed: (await run.host.arp(run.card.factory.address)).includes(run.unit.mac) ? 'still answers' : 'left',
  }),
  async (run) => {
    const differences = compare(run.compiled.config, await run.dialect.read())
    return {
      what: 'Settings read back',
      expected: 'as asked',
      observed: differences.length === 0 ? 'as asked' : differences.map(({ sentence }) => sentence).join(' '),
    }
  },
  async (run) => {
    const networks = (await run.dialect.air()).flatMap((radio) => radio.networks)
    const open = networks.filter((network) => network.security === 'open')
    return {
      what: 'Networks on air',
      expected: 'all secured',
      observed: open.length === 0 ? 'all secured' : `${open.map(({ ssid }) => ssid).join(', ')} open`,
    }
  },
]

async function loginOpens(run: UnitRun, which: 'new' | 'factory'): Promise<boolean> {
  const session = await run.session(run.plan.address)
  try {
    return await opens(session, which === 'new' ? run.newLogin : run.card.factory.login)
  } finally {
    session.close()
  }
}
