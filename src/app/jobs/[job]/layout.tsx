import type { ReactNode } from 'react'
import { BrokenRowError } from '../../../jobs/installation'
import { Frame } from '../../../ui/frame/frame'
import { Message } from '../../../ui/frame/message'
import { JobProvider } from '../../../ui/live/job-provider'
import { sentence } from '../../../words/en/sentence'
import { loadJobData } from '../../server/job-data'

export const dynamic = 'force-dynamic'

export default async function JobLayout({
  children,
  params,
}: {
  children: ReactNode
  params: Promise<{ job: string }>
}) {
  const data = await loadJobData((await params).job).catch((error: unknown) => {
    if (error instanceof BrokenRowError) return error
    throw error
  })
  if (data instanceof BrokenRowError)
    return (
      <Message
        title="This job cannot be read."
        words={`${sentence(data.told)}. The other jobs are not touched by it; its log tells what was done.`}
        link={{ href: '/', words: 'See all jobs' }}
      />
    )
  return (
    <JobProvider data={data}>
      <Frame>{children}</Frame>
    </JobProvider>
  )
}
