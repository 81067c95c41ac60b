import { type KitCard, modelName } from '../../core/kit/kit-card'
import { classOf } from '../../core/kit/poe'
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
  const { factory, power, timing, limits, quirks } = card
  const habits = [
    quirks.countryResetsChannels && 'setting the country resets its channels',
    quirks.appliesTogether && 'changes wait until they are applied together',
    quirks.mustSave && 'settings must be saved, or a restart loses them',
    quirks.ignoresPing && 'it does not answer ping',
    quirks.radiosShipOff && 'its radios ship switched off',
    quirks.countryLocked && `its country is locked to ${quirks.countryLocked}`,
    quirks.hidesPassphrases && 'it shows no passphrase back',
    quirks.clockStartsWrong && 'its clock starts wrong',
  ].filter((words) => typeof words === 'string')
  return (
    <>
      <p>
        <b>{modelName(card)}</b> <span className="soft">{roles[card.role]}</span>
      </p>
      <dl className={classes.facts}>
        <dt>Out of the box</dt>
        <dd>
          {factory.address ? <span className="mono">{factory.address}</span> : 'what DHCP gives'}
          {factory.addressing === 'dhcp-first' && ', after it asked DHCP'}, signs in with{' '}
          <span className="mono">{factory.login.user}</span>
          {factory.setupSsid && `, broadcasts ${factory.setupSsid}`}
        </dd>
        <dt>Takes</dt>
        <dd>
          {timing.start} s to start, {timing.apply} s to apply
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
        <dt>Reset</dt>
        <dd>{card.reset.steps.join(' ')}</dd>
      </dl>
    </>
  )
}
