import { settingIds, settingOf } from '../../core/catalogue/catalogue'
import { withinSentence } from '../../core/catalogue/setting'
import { isMustered, type KitCard, modelName } from '../../core/kit/kit-card'
import { classOf } from '../../core/kit/poe'
import { offersWords } from '../../words/en/old-crypto'
import classes from './kit.module.css'

const roles: Readonly<Record<KitCard['role'], string>> = {
  'access-point': 'Access point',
  controller: 'Controller',
  'managed-access-point': 'Access point, set through its controller',
  'link-end': 'End of a radio link',
  switch: 'Switch',
}

/** What a kit card says, for somebody with the box in their hands. */
export function CardFacts({ card }: { card: KitCard }) {
  const { factory, power, timing, limits, does } = card
  const habits = [
    does.countryResetsChannels && 'setting the country resets its channels',
    does.applies === 'staged' && 'changes wait until they are applied together',
    does.saves === 'on-command' && 'settings must be saved, or a restart loses them',
    does.ignoresPing && 'it does not answer ping',
    does.sessions === 'one' && 'it takes one sign-in at a time',
    does.slow && 'it answers slowly',
    does.old.length > 0 && `it ${offersWords(does.old)}`,
    does.country !== 'free' && `its country is locked to ${does.country}`,
  ].filter((words) => typeof words === 'string')
  const hidden = settingIds.filter((id) => card.can[id]?.readable === 'no')
  return (
    <>
      <p>
        <b>{modelName(card)}</b> <span className="soft">{roles[card.role]}</span>
      </p>
      <dl className={classes.facts}>
        <dt>Out of the box</dt>
        <dd>
          {factory.address ? <span className="mono">{factory.address}</span> : 'what DHCP gives'}
          {factory.address && factory.addressing === 'dhcp-first' && ', after it asked DHCP'}
          {factory.login.user !== '' && (
            <>
              , signs in with <span className="mono">{factory.login.user}</span>
            </>
          )}
          {factory.setupSsid && `, broadcasts ${factory.setupSsid}`}
        </dd>
        <dt>Takes</dt>
        <dd>
          {timing.start} s to start, {timing.apply} s to apply
          {timing.image !== undefined && `, ${timing.image} s to write an image of its firmware`}
        </dd>
        <dt>Power</dt>
        <dd>
          {power.poe === 'mains'
            ? `mains, ${power.watts} W`
            : `${power.poe}, class ${classOf(power)}, ${power.watts} W at the most`}
        </dd>
        {card.radios.map((radio) => (
          <div key={radio.name} className={classes.pair}>
            <dt>{radio.band} GHz</dt>
            <dd>
              to {Math.max(...radio.widths)} MHz, {Math.min(...radio.steps)} to {Math.max(...radio.steps)} dBm,{' '}
              {radio.gain} dBi
            </dd>
          </div>
        ))}
        {card.supplies && (
          <>
            <dt>Gives</dt>
            <dd>
              {card.supplies.watts} W on {card.supplies.ports} ports, {card.supplies.poe}
            </dd>
          </>
        )}
        <dt>Carries</dt>
        <dd>{limits.mostUnits ? `${limits.mostUnits} units` : `${limits.mostNetworks} networks`}</dd>
        {habits.length > 0 && (
          <>
            <dt>Habits</dt>
            <dd>{habits.join('; ')}</dd>
          </>
        )}
        <dt>Settings</dt>
        <dd>
          {isMustered(card) ? `takes ${Object.keys(card.can).length} of ${settingIds.length}` : 'set by hand'}
          {hidden.length > 0 && `; never shows ${hidden.map((id) => withinSentence(settingOf(id).words)).join(', ')}`}
          {card.triedWith !== '' && `; tried with firmware ${card.triedWith}`}
        </dd>
        <dt>Reset</dt>
        <dd>{card.reset.steps.join(' ')}</dd>
      </dl>
    </>
  )
}
