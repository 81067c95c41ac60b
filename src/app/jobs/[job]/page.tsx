import { redirect } from 'next/navigation'
import { loadJobData } from '../../server/job-data'

/** A job opens where the work is: at the brief while it is being written, then at the kit, then on the bench. */
export default async function JobPage({ params }: { params: Promise<{ job: string }> }) {
  const { job, units, briefFaults } = await loadJobData((await params).job)
  const stage = job.brief.networks.length === 0 || briefFaults > 0 ? 'brief' : units.length === 0 ? 'kit' : 'bench'
  redirect(`/jobs/${job.slug}/${stage}`)
}
