/** Answers the questions that come over a stream, in whatever order their answers are ready. */
import { linesOf } from './lines'
import { type Answering, answerLine, type Questions } from './question'

/** As much of a duplex stream as this takes; core knows no sockets. */
export interface Talk {
  readonly writable: boolean
  on(event: 'data', hear: (chunk: Uint8Array) => void): unknown
  on(event: 'error', hear: (error: Error) => void): unknown
  write(text: string): unknown
  destroy(): unknown
}

/** A stream that fails, or sends a line without end, is closed. */
export function serveQuestions<T extends Questions>(talk: Talk, table: T, answering: Answering<T>): void {
  const take = linesOf(
    (line) => void answerLine(table, answering, line).then((answer) => talk.writable && talk.write(answer)),
  )
  talk.on('error', () => talk.destroy())
  talk.on('data', (chunk) => {
    try {
      take(chunk)
    } catch {
      talk.destroy()
    }
  })
}
