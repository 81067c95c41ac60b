// A hundred units side by side, near to life: how long against one alone, and what the runner needs for it.
import { cpus } from 'node:os'
import { musterInLab } from './measured-muster.mjs'

const [count, pace] = [100, 2]
const one = await musterInLab({ count: 1, pace })
const all = await musterInLab({ count, pace })
const perUnit = (all.runnerSeconds - one.runnerSeconds) / (count - 1)
const told = ({ seconds, runnerSeconds, runnerPeakMb }) =>
  `${seconds.toFixed(2)} s, runner ${runnerSeconds.toFixed(2)} s of processor time, peak ${runnerPeakMb.toFixed(0)} MB`
process.stdout.write(
  `${cpus().length} cores, lab at pace ${pace}, one run each
one                    ${told(one)}
${count}                    ${told(all)}
${count} to one             ${(all.seconds / one.seconds).toFixed(3)} (wanted: at most 1.05)
processor time a unit  ${perUnit.toFixed(3)} s (wanted: below 0.15)
peak of memory         ${all.runnerPeakMb.toFixed(0)} MB (wanted: at most 250)
`,
)
