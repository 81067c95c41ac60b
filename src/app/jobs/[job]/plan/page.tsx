import { PlanView } from '../../../../ui/plan/plan-view'

export default function Page() {
  return <PlanView />
}
