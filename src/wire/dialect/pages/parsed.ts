/** HTML as a tree that can be searched, in linear time whatever the unit sends, and no deeper than any real page. */
import { type CheerioAPI, load } from 'cheerio/slim'
import { DomHandler } from 'domhandler'
import { Parser } from 'htmlparser2'
import { WireError } from '../../wire-error'

/** Elements within one another. */
const deepest = 256

class BoundedHandler extends DomHandler {
  override onopentag(name: string, attributes: Record<string, string>): void {
    if (this.tagStack.length > deepest) throw new WireError('garbled', 'its page is nested without end')
    super.onopentag(name, attributes)
  }
}

/** @throws WireError garbled */
export function parsed(html: string): CheerioAPI {
  const handler = new BoundedHandler()
  new Parser(handler).end(html)
  return load(handler.root)
}
