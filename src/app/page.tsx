import { getStore } from '../actions/store'
import { countriesByName, countryName } from '../core/regulatory/country'
import { jobLines } from '../jobs/job-lines'
import { radioRules } from '../jobs/rules'
import { JobsView } from '../ui/jobs/jobs-view'
import { courseWords } from '../words/en/roll-text'
import { sentence } from '../words/en/sentence'

export const dynamic = 'force-dynamic'

export default async function JobsPage() {
  const store = await getStore()
  const lines = (await jobLines(store)).map(({ brief, fault, course, ...line }) => ({
    ...line,
    course: course ? courseWords(course) : '',
    where: brief ? `${brief.site}, ${countryName(brief.country)}` : '',
    ...(fault === undefined ? {} : { fault: sentence(fault) }),
  }))
  const { database } = await radioRules(store)
  const countries = countriesByName(database.keys()).map(({ code, name }) => ({ value: code, words: name }))
  return <JobsView jobs={lines} countries={countries} />
}
