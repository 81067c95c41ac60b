/** The worker of the Plan page: plans, explains and paints, so that the page never waits. */
import { explainPlan, type LivePlan, planLive } from '../../../core/plan/live-plan'
import type { PlanInput, UnitPlan } from '../../../core/plan/plan'
import { type Coverage, coverage } from '../../../core/radio/coverage/coverage'
import type { PlacedRadio } from '../../../core/radio/propagation/levels'
import type { Fit } from '../../../core/radio/propagation/propagation'
import type { SituatedFloor } from '../../../core/radio/propagation/situation'
import type { Band } from '../../../core/regulatory/blocks'

export type PlanTask =
  | { readonly kind: 'explain'; readonly input: PlanInput; readonly plans: readonly UnitPlan[] }
  | { readonly kind: 'plan'; readonly input: PlanInput }
  | {
      readonly kind: 'coverage'
      readonly band: Band
      readonly floor: SituatedFloor
      readonly radios: readonly PlacedRadio[]
      readonly stepM: number
      readonly fit: Fit
    }

export interface PlanAnswer {
  readonly id: number
  readonly result: LivePlan | Coverage
  readonly ms: number
}

self.addEventListener('message', ({ data }: MessageEvent<{ id: number; task: PlanTask }>) => {
  const begun = performance.now()
  const result = carryOut(data.task)
  self.postMessage({ id: data.id, result, ms: performance.now() - begun } satisfies PlanAnswer)
})

function carryOut(task: PlanTask): LivePlan | Coverage {
  switch (task.kind) {
    case 'explain':
      return explainPlan(task.input, task.plans)
    case 'plan':
      return planLive(task.input)
    case 'coverage':
      return coverage(task.band, task.floor, task.radios, task.stepM, task.fit)
  }
}
