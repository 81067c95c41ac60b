/** What comes in as a stream: bounded, and never written into a log. */
import 'server-only'
import { NextResponse } from 'next/server'
import type { Outcome } from '../../core/job/outcome'
import type { GivenFile } from '../../jobs/kept-files'
import { refusal } from './guard'

/** Runs an upload for whoever may ask; what fails is a sentence, never a page of ours with a trace. */
export async function upload<T>(request: Request, act: () => Promise<Outcome<T>>): Promise<Response> {
  const refused = refusal(request)
  if (refused) return refused
  try {
    return NextResponse.json(await act())
  } catch (error) {
    console.error(error instanceof Error ? `${error.name}: ${error.message.slice(0, 300)}` : 'an upload failed')
    return NextResponse.json(
      {
        ok: false,
        sentence: 'It could not be kept: the database does not take it at the moment. Nothing was changed; try again.',
      },
      { status: 503 },
    )
  }
}

/** Body of a request, part by part. */
export async function* bodyParts(request: Request): AsyncGenerator<Uint8Array> {
  const reader = request.body?.getReader()
  if (!reader) return
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    yield value
  }
}

/** A header that holds text in any language, percent-encoded. */
export function textHeader(request: Request, name: string): string {
  try {
    return decodeURIComponent(request.headers.get(name) ?? '')
  } catch {
    return ''
  }
}

/** A file that a request brings, with the name by which its sender calls it. */
export function givenFile(request: Request): GivenFile {
  return { name: textHeader(request, 'x-file-name').slice(0, 120) || 'The file', parts: bodyParts(request) }
}
