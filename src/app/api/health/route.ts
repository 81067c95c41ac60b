import { NextResponse } from 'next/server'
import { listJobs } from '../../../store/jobs'
import { getStore } from '../../server/store'

export const dynamic = 'force-dynamic'

/** Answers once the database does. */
export async function GET(): Promise<NextResponse> {
  await listJobs(await getStore())
  return NextResponse.json({ ready: true })
}
