import { getStore } from '../../../../actions/store'
import { countriesByName } from '../../../../core/regulatory/country'
import { radioRules } from '../../../../jobs/rules'
import { BriefView } from '../../../../ui/brief/brief-view'

export default async function Page() {
  const { database } = await radioRules(await getStore())
  const countries = countriesByName(database.keys()).map(({ code, name }) => ({ value: code, words: name }))
  return <BriefView countries={countries} rules={database} />
}
