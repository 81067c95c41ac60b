/**
 * A long text is given to its parser in pieces, so that the units which share this thread are served in between, and
 * the parsing ends after a bounded amount of work, whatever the text is.
 */
import { message } from '../../core/message/message'
import { WireError } from '../errors/wire-error'

interface PieceParser {
  write(piece: string): void
  end(): void
}

/** UTF-16 units. Parsing a piece takes some milliseconds: any page that is not made to annoy is one piece. */
const sliceLength = 32 * 1024
/** The longest texts that are read at all take a quarter of it on a slow machine. */
const mostWorkMs = 3000

/**
 * @param now  ms; only differences count
 * @throws WireError garbled where the text takes too long, and what the parser throws
 */
export async function inSlices(text: string, parser: PieceParser, now = () => performance.now()): Promise<void> {
  let worked = 0
  for (let at = 0; at < text.length; at += sliceLength) {
    if (at > 0) await new Promise((resolve) => setImmediate(resolve))
    const begun = now()
    parser.write(text.slice(at, at + sliceLength))
    worked += now() - begun
    if (worked > mostWorkMs) throw new WireError('garbled', message('takes-too-long-to-read'))
  }
  parser.end()
}
