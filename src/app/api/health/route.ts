import { NextResponse } from 'next/server'
import { getStore } from '../../../actions/store'
import { databaseAnswers } from '../../../jobs/installation'

export const dynamic = 'force-dynamic'

/**
 * Whether the pages and their database answer, with the word that their starter gave them: others may answer at the
 * same port. 503 where the database does not.
 */
export async function GET(): Promise<NextResponse> {
  const ready = await getStore()
    .then(databaseAnswers)
    .catch(() => false)
  return NextResponse.json({ ready, started: process.env.AIR_MUSTER_STARTED ?? null }, { status: ready ? 200 : 503 })
}
