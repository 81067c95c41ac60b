import type { ReactNode } from 'react'
import { Frame } from '../../../ui/frame/frame'
import { JobProvider } from '../../../ui/live/job-provider'
import { loadJobData } from '../../server/job-data'

export const dynamic = 'force-dynamic'

export default async function JobLayout({ children, params }: { children: ReactNode; params: Promise<{ job: string }> }) {
  const data = await loadJobData((await params).job)
  return (
    <JobProvider data={data}>
      <Frame>{children}</Frame>
    </JobProvider>
  )
}
