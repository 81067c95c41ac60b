/** HTML as a tree that can be searched, in linear time whatever the unit sends, and no deeper than any real page. */

import { type CheerioAPI, load } from 'cheerio/slim'
import { DomHandler } from 'domhandler'
import { Parser } from 'htmlparser2'
import { message } from '../../../core/message/message'
import { inSlices } from '../../codec/in-slices'
import { WireError } from '../../errors/wire-error'

/** Elements within one another. */
const deepest = 256
/** Attributes of one element: pages drawn by script may have some dozens. */
const mostAttributes = 1000

class BoundedHandler extends DomHandler {
  #attributes = 0

  onattribute(): void {
    this.#attributes += 1
    if (this.#attributes > mostAttributes) throw new WireError('garbled', message('page-attributes-without-end'))
  }

  override onopentag(name: string, attributes: Record<string, string>): void {
    if (this.tagStack.length > deepest) throw new WireError('garbled', message('page-nested-without-end'))
    this.#attributes = 0
    super.onopentag(name, attributes)
  }
}

/** @throws WireError garbled */
export async function parsed(html: string): Promise<CheerioAPI> {
  const handler = new BoundedHandler()
  await inSlices(html, new Parser(handler))
  return load(handler.root)
}
