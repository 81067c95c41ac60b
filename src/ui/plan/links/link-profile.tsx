import { clearings, earthBulge, isOnTheWay, type LinkPath, lineHeight } from '../../../core/radio/links/link'
import classes from './link-profile.module.css'

interface Props {
  readonly path: LinkPath
  readonly mhz: number
  readonly nameA: string
  readonly nameB: string
}

const width = 640
const height = 190
const margin = { left: 40, right: 12, top: 18, bottom: 22 } as const

/**
 * The way from the side: ground with the bulge of the earth, masts, the straight line, the first zone, the highest
 * thing.
 */
export function LinkProfile({ path, mhz, nameA, nameB }: Props) {
  const { distanceM, heightA, heightB, obstacle } = path
  const ground = clearings(path, mhz).filter(({ what }) => what === 'ground')
  const zone = (sign: 1 | -1): [number, number][] =>
    ground.map(({ fromA, fresnelM }) => [fromA, lineHeight(path, fromA) + sign * fresnelM])
  const tops = [...zone(1).map(([, y]) => y), heightA, heightB, obstacle?.heightM ?? 0]
  const bottoms = [0, ...zone(-1).map(([, y]) => y)]
  const [most, least] = [Math.max(...tops) * 1.05, Math.min(...bottoms)]
  const x = (metres: number): number => margin.left + (metres / distanceM) * (width - margin.left - margin.right)
  const y = (metres: number): number =>
    height - margin.bottom - ((metres - least) / (most - least)) * (height - margin.top - margin.bottom)
  const line = (points: readonly (readonly [number, number])[]): string =>
    points.map(([atX, atY], index) => `${index === 0 ? 'M' : 'L'}${x(atX).toFixed(1)} ${y(atY).toFixed(1)}`).join('')
  const bulge: [number, number][] = ground.map(({ fromA }) => [fromA, earthBulge(fromA, distanceM)])
  const axis = [0, most / 2, most].map((metres) => Math.round(metres))
  const stands = obstacle && isOnTheWay(path) ? obstacle : undefined
  const words = stands
    ? `${stands.heightM} m high ${Math.round(stands.distanceM)} m from ${nameA}`
    : 'nothing but the ground on the way'
  return (
    <figure className={classes.figure}>
      <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`The way from ${nameA} to ${nameB}: ${words}`}>
        <path className={classes.zone} d={`${line(zone(1))}${line(zone(-1).toReversed()).replace('M', 'L')}Z`} />
        <path className={classes.ground} d={`${line([[0, 0], ...bulge, [distanceM, 0]])}V${y(least)}H${x(0)}Z`} />
        {stands && (
          <path
            className={classes.obstacle}
            d={`M${x(stands.distanceM)} ${y(0)}V${y(stands.heightM + earthBulge(stands.distanceM, distanceM))}`}
          />
        )}
        <path className={classes.mast} d={`M${x(0)} ${y(0)}V${y(heightA)}M${x(distanceM)} ${y(0)}V${y(heightB)}`} />
        <path
          className={classes.line}
          d={line([
            [0, heightA],
            [distanceM, heightB],
          ])}
        />
        {axis.map((metres) => (
          <text key={metres} className={classes.figures} x={margin.left - 6} y={y(metres) + 4} textAnchor="end">
            {metres}
          </text>
        ))}
        <text className={classes.figures} x={4} y={11}>
          m
        </text>
        <text className={classes.figures} x={x(0)} y={height - 6}>
          {nameA}
        </text>
        <text className={classes.figures} x={x(distanceM)} y={height - 6} textAnchor="end">
          {nameB}, {distanceM} m
        </text>
      </svg>
      <figcaption className="soft">
        Line between the antennas with its first Fresnel zone; the ground rises by the bulge of the earth (k = 4/3).
      </figcaption>
    </figure>
  )
}
