/** `muster doctor`: facts are gathered, judged, and said with their cures. It works whether anything runs or not. */
import { diagnose, type Finding } from '../core/doctor/diagnosis'
import type { DhcpServerFacts, FactorySubnet } from '../core/doctor/laptop-facts'
import { modelName } from '../core/kit/kit-card'
import { loadKitCards } from '../jobs/installation'
import { gatherFacts } from '../wire/host/gather-facts'
import { askHelper } from '../wire/host/linux'
import { findingWords } from '../words/en/diagnosis'
import { whatRuns } from './installation'

/** @param endWith  told 1 where something stops a muster */
export async function doctor(
  options: { interface?: string; json?: true },
  endWith: (code: number) => void,
): Promise<string> {
  const here = whatRuns()
  const gathered = await gatherFacts(options.interface ?? here?.interfaceName)
  const findings = diagnose({
    ...gathered,
    dhcpServers: here?.helperSocket ? await dhcpServers(here.helperSocket) : undefined,
    factorySubnets: factorySubnets(),
  })
  if (findings.some(({ weight }) => weight === 'stops')) endWith(1)
  if (!options.json) return findings.map(lines).join('\n')
  const told = findings.map((finding) => ({ code: finding.code, weight: finding.weight, ...findingWords(finding) }))
  return JSON.stringify(told, null, 2)
}

const signs = { stops: '✗', hinders: '!', good: '✓' } as const

function lines(finding: Finding): string {
  const { sentence, cure } = findingWords(finding)
  return `${signs[finding.weight]} ${sentence}${cure ? `\n  ${cure}` : ''}`
}

async function dhcpServers(socket: string): Promise<DhcpServerFacts[] | undefined> {
  const { ask, close } = askHelper(socket)
  try {
    return (await ask('heard', { askForDhcp: 'now' })).servers
  } catch {
    return undefined
  } finally {
    close()
  }
}

function factorySubnets(): FactorySubnet[] {
  return [...loadKitCards().values()].flatMap((card) =>
    card.factory.address === null
      ? []
      : [{ model: modelName(card), address: card.factory.address, prefix: card.factory.prefix }],
  )
}
