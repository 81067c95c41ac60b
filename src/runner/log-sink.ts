/**
 * Where log lines go. A log that cannot be written, on a full disk say, ends nothing: the lines are counted, and their
 * number is written when there is room again.
 */
import { writeSync } from 'node:fs'

/** @param fd  an open file */
export function logSink(fd: number): { write(line: string): void } {
  let lost = 0
  return {
    write(line) {
      try {
        if (lost > 0)
          writeSync(fd, `${JSON.stringify({ level: 40, msg: `${lost} lines of this log could not be written` })}\n`)
        lost = 0
        writeSync(fd, line)
      } catch {
        lost += 1
      }
    },
  }
}
