import { redirect } from 'next/navigation'

/** A job opens where the work is. */
export default async function JobPage({ params }: { params: Promise<{ job: string }> }) {
  redirect(`/jobs/${(await params).job}/bench`)
}
