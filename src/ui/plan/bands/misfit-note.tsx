'use client'
import type { Misfit } from '../../../core/radio/survey/fit'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'

const db = (value: number): string => `${Math.abs(value).toFixed(1)} dB`

/** How far the model is from what was measured, and the choice to fit it. */
export function MisfitNote() {
  const { site, live, change } = usePlan()
  const misfits = live?.misfits ?? []
  if (misfits.length === 0)
    return site.measured.length === 0 ? null : (
      <p className="soft">Place the units on a floor, and the model is held against what was measured.</p>
    )
  const canFit = misfits.some(({ fit }) => fit)
  return (
    <div>
      {misfits.map((misfit) => (
        <p key={misfit.band}>{sentenceOf(misfit)}</p>
      ))}
      <label className={classes.row}>
        <input
          type="checkbox"
          disabled={!canFit && site.model === 'as-it-is'}
          checked={site.model === 'fitted'}
          onChange={(event) => {
            const model = event.currentTarget.checked ? 'fitted' : 'as-it-is'
            change((before) => ({ ...before, model }))
          }}
        />
        Fit the model to what was measured
        {!canFit && <span className="soft">three pairs of a band are needed for that</span>}
      </label>
    </div>
  )
}

function sentenceOf({ band, residuals, biasDb, spreadDb, fit, leftDb }: Misfit): string {
  const pairs = residuals.length === 1 ? 'one pair' : `${residuals.length} pairs`
  const than = `${biasDb < 0 ? 'quieter' : 'louder'} than the model`
  const bias = `At ${band} GHz the site is ${db(biasDb)} ${than} over ${pairs}`
  const spread = residuals.length === 1 ? '.' : `, which lie ${db(spreadDb)} about that.`
  if (!fit || leftDb === undefined) return `${bias}${spread}`
  const slope =
    fit.perDecadeDb === 0
      ? ''
      : `, ${db(fit.perDecadeDb)} ${fit.perDecadeDb < 0 ? 'less' : 'more'} with each tenfold of distance`
  return (
    `${bias}${spread} Fitted it is ${db(fit.atTenMetresDb)} ${fit.atTenMetresDb < 0 ? 'quieter' : 'louder'} at ` +
    `ten metres${slope}, and ${db(leftDb)} are left.`
  )
}
