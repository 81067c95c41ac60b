import { briefMeaning } from '../../../../core/brief/meaning'
import { countryName } from '../../../../core/regulatory/country'
import { loadRegulatory } from '../../../../store/regulatory-file'
import { BriefView } from '../../../../ui/brief/brief-view'
import { loadJobData } from '../../../server/job-data'

export default async function Page({ params }: { params: Promise<{ job: string }> }) {
  const { job } = await loadJobData((await params).job)
  const regulatory = loadRegulatory()
  const countries = [...regulatory.keys()].map((value) => ({ value, label: `${countryName(value)} (${value})` })).sort((a, b) => a.label.localeCompare(b.label))
  return <BriefView key={job.version} countries={countries} meaning={briefMeaning(job.brief, regulatory.get(job.brief.country))} />
}
