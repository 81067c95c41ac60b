'use client'
import { useMemo } from 'react'
import { allBlocks, type Band, blockOf } from '../../../core/regulatory/blocks'
import { judge } from '../../../core/regulatory/legal'
import { conditionsOf, limitWords } from '../../../words/en/radio-rules'
import { sentence } from '../../../words/en/sentence'
import { useJob } from '../../live/job-provider'
import { usePlan } from '../state/plan-context'
import classes from './band-row.module.css'

interface User {
  readonly unit: string
  readonly name: string
  readonly lowMhz: number
  readonly width: number
}

/** A band as 20 MHz channels side by side, with boxes for those who use them, stacked where they meet. */
export function BandRow({ band, users }: { band: Band; users: readonly User[] }) {
  const { country, selected, select } = useJob()
  const { site } = usePlan()
  const pieces = useMemo(() => {
    if (!country) return []
    return allBlocks
      .filter((block) => block.band === band && block.width === 20 && !(band === '2.4' && block.channel === 14))
      .map((block) => ({ block, judgement: judge(country, block) }))
  }, [country, band])
  const legal = pieces.filter(({ judgement }) => judgement.legal)
  if (legal.length === 0) return <p>No channel of this band is legal here for an access point.</p>
  const low = Math.min(...pieces.map(({ block }) => block.lowMhz))
  const high = Math.max(...pieces.map(({ block }) => block.highMhz))
  const share = (mhz: number): string => `${(100 * mhz) / (high - low)}%`
  /** From one channel to the next, MHz. */
  const raster = band === '2.4' ? 5 : 20
  const levels = stack(users)
  const heard = site.heard.filter((each) => each.band === band)
  return (
    <div className={classes.scroll}>
      <div
        className={classes.band}
        data-band={band}
        style={{ '--levels': Math.max(2, ...levels.map((level) => level + 1)) } as React.CSSProperties}
      >
        <div className={classes.users}>
          {users.map((user, index) => (
            <button
              key={user.unit}
              type="button"
              className={classes.user}
              data-selected={user.unit === selected}
              title={`${user.name}, ${user.width} MHz from ${user.lowMhz} MHz`}
              aria-label={`${user.name} uses ${user.lowMhz} to ${user.lowMhz + user.width} MHz`}
              style={{ left: share(user.lowMhz - low), width: share(user.width), bottom: (levels[index] ?? 0) * 13 }}
              onClick={() => select(user.unit)}
            />
          ))}
        </div>
        <div className={classes.ground}>
          {pieces.map(({ block, judgement }) => (
            <span
              key={block.channel}
              data-legal={judgement.legal}
              data-radar={judgement.legal && judgement.block.radar}
              data-indoor={judgement.legal && judgement.block.indoor}
              title={
                judgement.legal
                  ? [`channel ${block.channel}`, limitWords(judgement.block), ...conditionsOf(judgement.block)].join(
                      ', ',
                    )
                  : sentence(judgement.refusal.reason)
              }
              style={{ left: share((block.lowMhz + block.highMhz) / 2 - raster / 2 - low), width: share(raster) }}
            />
          ))}
        </div>
        <div className={classes.heard}>
          {heard.map((each) => {
            const block = blockOf(band, each.channel, each.width, each.secondary)
            if (!block) return null
            return (
              <span
                key={`${each.ssid} ${each.channel} ${each.unit}`}
                title={`${each.ssid}, ${each.dbm} dBm`}
                style={{ left: share(block.lowMhz - low), width: share(block.width) }}
              />
            )
          })}
        </div>
        <div className={classes.numbers}>
          {pieces
            .filter((_, index) => band !== '6' || index % 4 === 1)
            .map(({ block }) => (
              <span key={block.channel} style={{ left: share((block.lowMhz + block.highMhz) / 2 - low) }}>
                {block.channel}
              </span>
            ))}
        </div>
      </div>
    </div>
  )
}

/** On which storey of the pile each user lies: above whoever it overlaps. */
function stack(users: readonly User[]): number[] {
  const placed: (User & { level: number })[] = []
  return users.map((user) => {
    const meets = placed
      .filter((other) => other.lowMhz < user.lowMhz + user.width && user.lowMhz < other.lowMhz + other.width)
      .map((other) => other.level)
    let level = 0
    while (meets.includes(level)) level += 1
    placed.push({ ...user, level })
    return level
  })
}
