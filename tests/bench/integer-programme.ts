/**
 * A channel problem as an integer programme, in the LP format that solvers read.
 *
 * One binary for each radio and block; for each pair one number that must rise to the overlap where both take blocks
 * that meet. Cuts help the proof, and cut no plan off: of q radios that all hear each other, on k blocks, at least as
 * many pairs must share one as in the most even sharing out (P. Turán, 1941).
 */
import { type ChannelProblem, pairsOf, weightOf } from '../../src/core/radio/channels/channel-problem'
import { overlapOf } from '../../src/core/radio/channels/span'

const mostCuts = 5000

export function integerProgramme({ radios, hears, others }: ChannelProblem): string {
  const pairs = pairsOf(radios, hears)
  const cost: string[] = []
  const rules: string[] = []
  const choices: string[] = []
  radios.forEach(({ id, options }, radio) => {
    rules.push(`${options.map((_, option) => `x${radio}_${option}`).join(' + ')} = 1`)
    options.forEach((option, index) => {
      choices.push(`x${radio}_${index}`)
      const own = others
        .filter((other) => other.radio === id)
        .reduce((sum, other) => sum + overlapOf(option, other) * weightOf(other.dbm), 0)
      if (own > 0) cost.push(`${own} x${radio}_${index}`)
    })
  })
  for (let pair = 0; pair < pairs.count; pair += 1) {
    const [i = 0, j = 0] = [pairs.first[pair], pairs.second[pair]]
    cost.push(`${pairs.weight[pair]} e${pair}`)
    radios[i]?.options.forEach((one, a) => {
      radios[j]?.options.forEach((other, b) => {
        const overlap = overlapOf(one, other)
        if (overlap > 0) rules.push(`e${pair} - ${overlap} x${i}_${a} - ${overlap} x${j}_${b} >= ${-overlap}`)
      })
    })
  }
  rules.push(...cliqueCuts(radios.length, radios[0]?.options.length ?? 1, pairs))
  return [
    'Minimize',
    ` obj: ${cost.join(' + ') || '0 x0_0'}`,
    'Subject To',
    ...rules.map((rule, index) => ` c${index}: ${rule}`),
    'Bounds',
    ...Array.from({ length: pairs.count }, (_, pair) => ` 0 <= e${pair} <= 1`),
    'Binary',
    ` ${choices.join(' ')}`,
    'End',
    '',
  ].join('\n')
}

/** Holds for blocks that are the same or apart, as one width of a band is. */
function cliqueCuts(count: number, blocks: number, pairs: ReturnType<typeof pairsOf>): string[] {
  const edge = new Map<number, number>()
  for (let pair = 0; pair < pairs.count; pair += 1) {
    const [i = 0, j = 0] = [pairs.first[pair], pairs.second[pair]]
    edge.set(i * count + j, pair).set(j * count + i, pair)
  }
  const cuts: string[] = []
  for (const size of [blocks + 1, blocks + 2, 2 * blocks + 1]) {
    const found: string[] = []
    const least = Array.from({ length: blocks }, (_, block) => Math.floor((size + block) / blocks)).reduce(
      (sum, share) => sum + (share * (share - 1)) / 2,
      0,
    )
    const grow = (clique: readonly number[], candidates: readonly number[]): void => {
      if (found.length >= mostCuts) return
      if (clique.length === size) {
        const edges = clique.flatMap((a, index) => clique.slice(index + 1).map((b) => `e${edge.get(a * count + b)}`))
        found.push(`${edges.join(' + ')} >= ${least}`)
        return
      }
      for (const next of candidates)
        grow(
          [...clique, next],
          candidates.filter((other) => other > next && edge.has(next * count + other)),
        )
    }
    grow([], [...Array(count).keys()])
    cuts.push(...found)
  }
  return cuts
}
