'use client'
import type { LivePlan } from '../../../core/plan/live-plan'
import { radioId } from '../../../core/radio/channels/radio-request'
import { type Floor, materials } from '../../../core/radio/propagation/floor'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'

/** The floor itself, and the units that hang nowhere yet. */
export function FloorFields({ floor, onPlace }: { floor: Floor; onPlace: (unit: string) => void }) {
  const { units } = useJob()
  const { site, change, live, plans } = usePlan()
  const set = (part: Partial<Floor>) =>
    change((before) => ({
      ...before,
      floors: before.floors.map((each) => (each.id === floor.id ? { ...each, ...part } : each)),
    }))
  const number = (text: string): number | undefined =>
    text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : undefined
  const figure = (label: string, value: number, least: number, take: (value: number) => void) => (
    <label>
      {label}{' '}
      <input
        key={value}
        className="mono"
        inputMode="decimal"
        defaultValue={String(Math.round(value * 10) / 10)}
        onBlur={(event) => {
          const typed = number(event.currentTarget.value)
          if (typed !== undefined && typed >= least && typed !== value) take(typed)
          else event.currentTarget.value = String(Math.round(value * 10) / 10)
        }}
      />
    </label>
  )
  const placed = new Set(site.placements.map((placement) => placement.unit))
  const loose = units.filter((unit) => !placed.has(unit.id) && (plans.get(unit.id)?.radios.length ?? 0) > 0)
  return (
    <aside
      id="slip"
      tabIndex={-1}
      className={`${sheet.sheet} ${sheet.pad} ${classes.slip}`}
      aria-label={`Slip of ${floor.name}`}
    >
      <div className={classes.floorFields}>
        <label>
          Name{' '}
          <input
            defaultValue={floor.name}
            onBlur={(event) =>
              event.currentTarget.value.trim() !== '' &&
              event.currentTarget.value !== floor.name &&
              set({ name: event.currentTarget.value.trim() })
            }
          />
        </label>
        <label>
          It is{' '}
          <select
            value={floor.environment}
            onChange={(event) => set({ environment: event.currentTarget.value as Floor['environment'] })}
          >
            <option value="indoor">indoors</option>
            <option value="outdoor">outdoors</option>
          </select>
        </label>
        {figure('Storey', floor.storey, -10, (storey) => set({ storey: Math.round(storey) }))}
        {figure('Wide, m', floor.widthM, 1, (widthM) =>
          set({
            widthM,
            ...(floor.drawing
              ? {
                  drawing: { ...floor.drawing, metresPerPx: widthM / floor.drawing.widthPx },
                  depthM: (floor.drawing.heightPx * widthM) / floor.drawing.widthPx,
                }
              : {}),
          }),
        )}
        {figure('Deep, m', floor.depthM, 1, (depthM) => set({ depthM }))}
        {figure('High, m', floor.heightM, 2, (heightM) => set({ heightM }))}
        {floor.environment === 'indoor' && (
          <>
            <label>
              Its inner walls{' '}
              <select
                value={floor.innerWalls}
                onChange={(event) => set({ innerWalls: event.currentTarget.value as Floor['innerWalls'] })}
              >
                <option value="some-drawn">are drawn in part</option>
                <option value="all-drawn">are all drawn</option>
              </select>
            </label>
            <label>
              Its outer walls{' '}
              <select
                value={floor.outerWalls}
                onChange={(event) => set({ outerWalls: event.currentTarget.value as Floor['outerWalls'] })}
              >
                {materials.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </select>
            </label>
          </>
        )}
      </div>
      {loose.length > 0 && (
        <div>
          <b>Not placed yet</b>
          <ul className={classes.loose}>
            {loose.map((unit) => (
              <li key={unit.id}>
                <button type="button" onClick={() => onPlace(unit.id)}>
                  {unit.name}
                </button>{' '}
                <span className="soft">{unit.location}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {loose.length === 0 && (
        <p className="soft">Every unit with a radio is placed. Select one to see why it has its channel.</p>
      )}
      <button
        type="button"
        className={classes.quiet}
        onClick={() =>
          change((before) => ({
            ...before,
            floors: before.floors.filter((each) => each.id !== floor.id),
            placements: before.placements.filter((each) => each.floor !== floor.id),
          }))
        }
      >
        Take this floor away
      </button>
      {/* Last, since it grows by itself: nothing that is clicked may move. */}
      <p className="soft">
        {wallWords(floor)}
        {site.floors.length > 1 && ` ${lyingWords(floor)}`}
        {live && ` ${airWords(live)}`}
      </p>
    </aside>
  )
}

/** What stands in the way of a signal on this floor. */
function wallWords({ environment, innerWalls, walls }: Floor): string {
  const drawn = `${walls.length} ${walls.length === 1 ? 'wall is' : 'walls are'} drawn`
  if (environment === 'outdoor')
    return walls.length === 0 ? 'Outdoors: levels as along a line of sight.' : `${drawn} and count one by one.`
  if (innerWalls === 'all-drawn') return `${drawn} and count one by one; else nothing is in the way.`
  return (
    `${drawn}. Beside them as much is taken to be in the way as in an office, ITU-R P.1238-10: a wall counts ` +
    'where it is more than that.'
  )
}

/** Where it lies among the other drawings. */
function lyingWords({ origin }: Floor): string {
  if (!origin)
    return (
      'It is not aligned with another drawing: it lies over other storeys by its corner, and beside those of ' +
      'its own.'
    )
  const turn = origin.turn === 0 ? '' : `, turned by ${origin.turn}°`
  return `It is aligned: its corner lies at ${origin.x.toFixed(1)}, ${origin.y.toFixed(1)} m of the site${turn}.`
}

/** How the air is shared on the whole site, band by band. */
function airWords({ reasons, plans }: LivePlan): string {
  const bands = [...new Set(plans.flatMap(({ radios }) => radios.map(({ band }) => band)))].sort()
  return bands
    .map((band) => {
      const sharing = plans.flatMap(({ unit }) => reasons.get(radioId(unit, band))?.sharing ?? [])
      const alone = sharing.filter((each) => each === 1).length
      const most = Math.max(1, ...sharing)
      const rest = most === 1 ? '' : `; where it is worst, ${most} share it`
      return `${band} GHz: ${alone} of ${sharing.length} have the air to themselves${rest}.`
    })
    .join(' ')
}
