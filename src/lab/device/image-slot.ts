/**
 * Where a stand-in puts an image part by part until it is whole. An image of the lab is text: a line that says what it
 * is, the model, the version, what it sets otherwise by default, and then whatever fills it.
 */
import { createHash } from 'node:crypto'
import { Refusal } from './refusal'

export interface ReadImage {
  readonly version: string
  /** Telnet is on again when it runs, as some makers have it. */
  readonly turnsTelnetOn: boolean
}

const mostBytes = 64 * 1024 * 1024

export class ImageSlot {
  #image = ''
  #parts: Buffer[] = []
  #size = 0

  /** @throws Refusal where it does not follow on what came before */
  take(image: string, offset: number, content: Buffer): void {
    if (offset === 0) {
      this.#image = image
      this.#parts = []
      this.#size = 0
    }
    if (image !== this.#image || offset !== this.#size)
      throw new Refusal('invalid-value', `a part of it is missing before octet ${offset}`, 'offset')
    if (this.#size + content.length > mostBytes)
      throw new Refusal('invalid-value', 'there is no room for it', 'content')
    this.#parts.push(content)
    this.#size += content.length
  }

  /**
   * The image whose parts have come; what it read is forgotten.
   * @param model  `maker model` @throws Refusal where it is not whole, or not for this model
   */
  read(image: string, model: string): ReadImage {
    const bytes = Buffer.concat(this.#parts)
    this.#parts = []
    this.#size = 0
    if (image !== this.#image || createHash('sha256').update(bytes).digest('hex') !== image)
      throw new Refusal('invalid-value', 'its digest is another', 'image')
    const [kind, ...lines] = bytes.subarray(0, 400).toString('utf8').split('\n')
    const said = (name: string): string | undefined =>
      lines.find((line) => line.startsWith(`${name}: `))?.slice(name.length + 2)
    const version = said('version')
    if (kind !== 'stand-in image' || version === undefined)
      throw new Refusal('invalid-value', 'it is no image', 'image')
    if (said('model') !== model) throw new Refusal('invalid-value', `it is for ${said('model')}`, 'image')
    return { version, turnsTelnetOn: said('telnet') === 'on' }
  }
}
