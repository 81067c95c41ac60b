import { NextResponse } from 'next/server'
import { listJobs } from '../../../store/jobs'
import { getStore } from '../../server/store'

export const dynamic = 'force-dynamic'

/** Answers once the database does, with the word that its starter gave it: others may answer at the same port. */
export async function GET(): Promise<NextResponse> {
  await listJobs(await getStore())
  return NextResponse.json({ ready: true, started: process.env.AIR_MUSTER_STARTED ?? null })
}
