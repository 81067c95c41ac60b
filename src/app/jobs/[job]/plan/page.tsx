import { getStore } from '../../../../actions/store'
import { countriesByName } from '../../../../core/regulatory/country'
import { radioRules } from '../../../../jobs/rules'
import { PlanView } from '../../../../ui/plan/plan-view'

export default async function Page() {
  const { database } = await radioRules(await getStore())
  const rules = countriesByName(database.keys()).flatMap(({ code, name }) => {
    const country = database.get(code)
    return country ? [{ code, name, rules: country }] : []
  })
  return <PlanView rules={rules} />
}
