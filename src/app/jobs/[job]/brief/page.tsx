import { countryName } from '../../../../core/regulatory/country'
import { radioRules } from '../../../../store/regulatory-file'
import { BriefView } from '../../../../ui/brief/brief-view'
import { getStore } from '../../../server/store'

export default async function Page() {
  const { database } = await radioRules(await getStore())
  const countries = [...database.keys()].map((value) => ({ value, words: countryName(value) })).sort((a, b) => a.words.localeCompare(b.words))
  return <BriefView countries={countries} rules={database} />
}
