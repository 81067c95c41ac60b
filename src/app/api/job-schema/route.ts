/** The published form of a job file. */
import { NextResponse } from 'next/server'
import { jobJsonSchema } from '../../../core/job/job-document'

export async function GET(): Promise<NextResponse> {
  return NextResponse.json(jobJsonSchema())
}
