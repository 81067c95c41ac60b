/** How each thing that can happen to a site happens in a scene. */
import { adminSecretName, secretName } from '../../src/core/brief/brief'
import { isManaged } from '../../src/core/kit/kit-card'
import { theseUnits } from '../../src/core/muster/selection'
import type { UnitPlan } from '../../src/core/plan/plan'
import type { Happening } from './faults'
import type { Play } from './play'
import { jobId, type Scene } from './scene'
import type { SimulatedJob } from './site'
import { isSetByHand, type SimulatedUnit } from './unit'

type By<K extends Happening['kind']> = Extract<Happening, { kind: K }>
type Acts = { readonly [K in Happening['kind']]: (play: Play, what: By<K>) => void }

const unitOf = ({ units }: Scene, index: number): SimulatedUnit => units[index % units.length] as SimulatedUnit

/** A unit of whose ways in nobody of ours can know. */
function outOfHand(scene: Scene, unit: SimulatedUnit): void {
  scene.outOfHand.add(unit.mac)
}

function changeJob(scene: Scene, change: (job: SimulatedJob) => Partial<SimulatedJob>): void {
  const kept = scene.records.jobs.get(jobId)
  if (kept) kept.job = { ...kept.job, ...change(kept.job) }
}

function withAddresses(job: SimulatedJob, addressOf: (plan: UnitPlan, index: number) => string): Partial<SimulatedJob> {
  const plans = job.units.flatMap((unit, index) => {
    const plan = job.plans.get(unit.id)
    return plan ? [[unit.id, { ...plan, address: addressOf(plan, index) }] as const] : []
  })
  return { plans: new Map(plans) }
}

const acts: Acts = {
  power: ({ scene }, { unit, seconds }) => {
    for (const each of unit === 'all' ? scene.units : [unitOf(scene, unit)]) {
      if (each.phase === 'off') continue
      each.cut()
      scene.world.after(scene.ms(seconds), () => each.plug())
    }
  },
  reset: ({ scene }, { unit }) => {
    const each = unitOf(scene, unit)
    outOfHand(scene, each)
    each.reset()
  },
  swap: ({ scene }, { unit, seconds }) => {
    const each = unitOf(scene, unit)
    each.isAway = true
    scene.world.after(scene.ms(seconds), () => {
      each.isAway = false
      if (each.phase === 'up') each.restart()
    })
  },
  certificate: ({ scene }, { unit }) => {
    const each = unitOf(scene, unit)
    each.certificate = `${each.certificate}:new`
    outOfHand(scene, each)
  },
  meddle: ({ scene }, { unit, what }) => {
    const each = unitOf(scene, unit)
    // What a controller manages is changed through its controller alone.
    if (isManaged(each.card)) return
    outOfHand(scene, each)
    each.meddle(what)
  },
  thief: ({ scene }, { unit, seconds }) => {
    const planned = scene.records.jobs.get(jobId)?.job.plans.get(unitOf(scene, unit).unit.id)?.address
    if (planned) scene.thieves.set(planned, scene.world.now + scene.ms(seconds))
  },
  astray: ({ scene }, { seconds }) => {
    scene.astrayUntil = scene.world.now + scene.ms(seconds)
  },
  'dhcp-moves': ({ scene }, { unit }) => {
    const each = unitOf(scene, unit)
    if (!scene.leases.has(each.mac) || scene.scenario.site.leases === 'reserved') return
    scene.leases.set(each.mac, scene.job.brief.management.cidr.replace('0/24', String(140 + unit)))
    if (each.phase === 'up') each.settle()
  },
  kill: (play) => play.killRunner(),
  freeze: (play, { seconds }) => play.freezeRunner(seconds),
  sleep: (play, what) => play.sleep(what),
  carried: (play, { unit, seconds }) => {
    const { scene } = play
    const each = unitOf(scene, unit)
    play.sleep({ kind: 'sleep', seconds, monotonic: 'runs' })
    if (each.phase === 'off') return
    each.cut()
    scene.world.after(seconds * 500, () => each.plug())
  },
  'wall-clock': ({ scene }, { seconds }) => {
    scene.world.wallShift += seconds * 1000
  },
  'database-away': ({ scene }, { seconds }) => {
    scene.databaseAwayUntil = scene.world.now + scene.ms(seconds)
  },
  'wire-away': ({ scene }, { seconds }) => {
    scene.wireAwayUntil = scene.world.now + scene.ms(seconds)
    scene.interruptions += 1
    for (const session of scene.sessions) session.loseConnection()
  },
  'new-password': ({ scene }, { how }) => {
    if (how === 'made-anew') {
      const kept = scene.records.jobs.get(jobId)
      if (!kept) return
      const names = new Set(kept.job.units.map(({ id }) => adminSecretName(kept.job.brief.admin, id)))
      for (const name of names) scene.records.changeSecret(jobId, name, `Password-made-anew-${kept.former.length}-x`)
      return
    }
    changeJob(scene, ({ brief }) => {
      const passwords = brief.admin.passwords === 'one-per-job' ? 'one-per-unit' : 'one-per-job'
      return { brief: { ...brief, admin: { ...brief.admin, passwords } } }
    })
  },
  brief: ({ scene }, { what }) => {
    if (what === 'passphrase')
      return scene.records.changeSecret(jobId, secretName.passphrase({ id: 'n0' }), 'another-passphrase-of-n0')
    if (what === 'addressing')
      return changeJob(scene, ({ brief }) => ({
        brief: { ...brief, addressing: brief.addressing === 'dhcp' ? 'static' : 'dhcp' },
      }))
    changeJob(scene, ({ brief }) => {
      const networks =
        what === 'name'
          ? brief.networks.map((network) => ({
              ...network,
              ssid: `${network.ssid} 2`,
              openConfirmation: network.openConfirmation && `${network.ssid} 2`,
            }))
          : brief.networks.slice(0, Math.max(1, brief.networks.length - 1))
      return { brief: { ...brief, networks } }
    })
  },
  plan: ({ scene }, { what }) =>
    changeJob(scene, (job) => {
      const place = (from: number, index: number): string =>
        job.brief.management.cidr.replace(/0\/24$/, String(from + index))
      if (what === 'addresses') return withAddresses(job, (_, index) => place(41, index))
      if (what === 'subnet') {
        const { management } = job.brief
        // The site's DHCP server moves with it: units hear of that when they ask again.
        for (const [mac, address] of scene.leases) scene.leases.set(mac, address.replace('10.20.', '10.30.'))
        const moved = {
          ...management,
          cidr: '10.30.0.0/24',
          gateway: '10.30.0.1',
          dnsServers: ['10.30.0.1'],
          dhcpPool: { first: '10.30.0.100', last: '10.30.0.199' },
        }
        return {
          brief: { ...job.brief, management: moved },
          ...withAddresses(job, (_, index) => `10.30.0.${21 + index}`),
        }
      }
      const addresses = job.units.flatMap(({ id }) => job.plans.get(id)?.address ?? [])
      if (what === 'passed-on') {
        const free = [90, 91, 92, 93, 94, 95].map((host) => place(host, 0)).find((each) => !addresses.includes(each))
        return withAddresses(job, (_, index) => addresses[index + 1] ?? free ?? '')
      }
      return withAddresses(job, (_, index) => addresses[(index + 1) % addresses.length] ?? '')
    }),
  kit: ({ scene }, { unit }) => {
    const id = unitOf(scene, unit).unit.id
    changeJob(scene, (job) => ({
      units: job.units.map((each) => (each.id === id ? { ...each, name: `${each.name.slice(0, 4)}-new` } : each)),
    }))
  },
  pause: ({ scene }) => scene.records.askPause(jobId),
  hands: ({ scene }) => {
    for (const unit of scene.units) {
      const plan = scene.job.plans.get(unit.unit.id)
      if (isSetByHand(unit) && plan) unit.setByHand(plan.address)
    }
  },
  'muster-one': (play, { unit }) => play.order(theseUnits(unitOf(play.scene, unit).unit.id)),
  'delete-job': (play) => play.deleteJob(),
}

export function happen(play: Play, what: Happening): void {
  play.scene.world.tell('WORLD', JSON.stringify(what))
  const act = acts[what.kind] as (play: Play, what: Happening) => void
  act(play, what)
}
