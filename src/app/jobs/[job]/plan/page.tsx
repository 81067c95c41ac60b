import { countryName } from '../../../../core/regulatory/country'
import { radioRules } from '../../../../store/regulatory-file'
import { PlanView } from '../../../../ui/plan/plan-view'
import { getStore } from '../../../server/store'

export default async function Page() {
  const { database } = await radioRules(await getStore())
  const rules = [...database.entries()].map(([code, country]) => ({ code, name: countryName(code), rules: country })).sort((a, b) => a.name.localeCompare(b.name))
  return <PlanView rules={rules} />
}
