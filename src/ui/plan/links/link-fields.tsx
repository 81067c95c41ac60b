'use client'
import type { Link } from '../../../core/radio/propagation/floor'
import { useJob } from '../../live/job-provider'
import classes from '../state/plan.module.css'

/** The way of a link, in figures. */
export function LinkFields({ link, onChange }: { link: Link; onChange: (part: Partial<Link>) => void }) {
  const { units, cards } = useJob()
  const ends = units.filter((unit) => cards.get(unit.model)?.role === 'link-end')
  const figure = (label: string, value: number | null, take: (value: number | null) => void, least = 0) => (
    <label>
      {label}{' '}
      <input
        key={value}
        className="mono"
        aria-label={label}
        inputMode="decimal"
        size={6}
        defaultValue={value ?? ''}
        onBlur={(event) => {
          const text = event.currentTarget.value.trim().replace(',', '.')
          const typed = text === '' ? null : Number(text)
          if (typed === null || (Number.isFinite(typed) && typed >= least)) {
            if (typed !== value) take(typed)
          } else event.currentTarget.value = value === null ? '' : String(value)
        }}
      />
    </label>
  )
  const end = (key: 'a' | 'b', words: string) => (
    <label>
      {words}{' '}
      <select aria-label={words} value={link[key]} onChange={(event) => onChange({ [key]: event.currentTarget.value })}>
        {ends.map((unit) => (
          <option key={unit.id} value={unit.id} disabled={unit.id === link[key === 'a' ? 'b' : 'a']}>
            {unit.name}
          </option>
        ))}
      </select>
    </label>
  )
  return (
    <div className={classes.row}>
      {end('a', 'Access end')}
      {end('b', 'Station end')}
      {figure('Distance, m', link.distanceM, (value) => value !== null && onChange({ distanceM: value }), 1)}
      {figure('Height of the access end, m', link.heightA, (value) => value !== null && onChange({ heightA: value }))}
      {figure('Height of the station end, m', link.heightB, (value) => value !== null && onChange({ heightB: value }))}
      {figure('Highest thing on the way, m', link.obstacle?.heightM ?? null, (value) =>
        onChange({
          obstacle:
            value === null ? null : { distanceM: link.obstacle?.distanceM ?? link.distanceM / 2, heightM: value },
        }),
      )}
      {link.obstacle &&
        figure(
          'at, m from the access end',
          link.obstacle.distanceM,
          (value) => value !== null && link.obstacle && onChange({ obstacle: { ...link.obstacle, distanceM: value } }),
          1,
        )}
      <label>
        Width{' '}
        <select
          aria-label="Width of the link"
          value={link.width}
          onChange={(event) => onChange({ width: Number(event.currentTarget.value) as Link['width'] })}
        >
          {[20, 40, 80].map((width) => (
            <option key={width} value={width}>
              {width} MHz
            </option>
          ))}
        </select>
      </label>
      {figure(
        "Channel, empty for the plan's",
        link.channel,
        (value) => onChange({ channel: value === null ? null : Math.round(value) }),
        1,
      )}
    </div>
  )
}
