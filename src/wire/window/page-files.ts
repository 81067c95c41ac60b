/**
 * Files between a person and a unit's pages. What a page offers is taken into a folder that is ours alone, handed on
 * whole, and deleted; what it is given lies there until the window is closed, since a page reads it when it sends it.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import type { BrowserContext, CDPSession } from 'puppeteer-core'
import { mostDownloadBytes, type Told } from '../../core/showing/window-talk'

export interface PageFile {
  readonly name: string
  readonly bytes: Uint8Array
}
export type KeepFile = (file: PageFile) => Promise<void>

export class PageFiles {
  readonly #folder = mkdtempSync(join(tmpdir(), 'air-muster-files-'))
  readonly #names = new Map<string, string>()
  readonly #keep: KeepFile
  readonly #tell: (told: Told) => void
  readonly #context: string
  #session: CDPSession | undefined
  #given = 0

  private constructor(context: string, keep: KeepFile, tell: (told: Told) => void) {
    this.#context = context
    this.#keep = keep
    this.#tell = tell
  }

  static async open(context: BrowserContext, keep: KeepFile, tell: (told: Told) => void): Promise<PageFiles> {
    const files = new PageFiles(context.id ?? '', keep, tell)
    try {
      await files.#listen(await context.browser().target().createCDPSession())
    } catch (error) {
      files.close()
      throw error
    }
    return files
  }

  async #listen(session: CDPSession): Promise<void> {
    this.#session = session
    session.on('Browser.downloadWillBegin', ({ guid, suggestedFilename }) => {
      this.#names.set(guid, basename(suggestedFilename).slice(0, 200) || 'file')
    })
    session.on('Browser.downloadProgress', ({ guid, state, receivedBytes }) => {
      if (state === 'completed') void this.#came(guid)
      else if (state === 'inProgress' && receivedBytes > mostDownloadBytes) this.#tooLarge(guid)
    })
    await session.send('Browser.setDownloadBehavior', {
      behavior: 'allowAndName',
      browserContextId: this.#context,
      downloadPath: this.#folder,
      eventsEnabled: true,
    })
  }

  #tooLarge(guid: string): void {
    const name = this.#names.get(guid)
    if (name === undefined) return
    this.#names.delete(guid)
    this.#tell({ kind: 'cannot', what: 'keep-download', name })
    this.#session?.send('Browser.cancelDownload', { guid, browserContextId: this.#context }).catch(() => undefined)
  }

  async #came(guid: string): Promise<void> {
    const name = this.#names.get(guid)
    if (name === undefined) return
    this.#names.delete(guid)
    const path = join(this.#folder, basename(guid))
    try {
      const bytes = await readFile(path)
      if (bytes.length > mostDownloadBytes) throw new Error('it is too large')
      await this.#keep({ name, bytes })
      this.#tell({ kind: 'kept', name, bytes: bytes.length })
    } catch {
      this.#tell({ kind: 'cannot', what: 'keep-download', name })
    } finally {
      await rm(path, { force: true })
    }
  }

  /** @returns path of a file that a page can be given */
  async lay({ name, bytes }: PageFile): Promise<string> {
    this.#given += 1
    const folder = join(this.#folder, `given-${this.#given}`)
    await mkdir(folder, { mode: 0o700 })
    const path = join(folder, basename(name) || 'file')
    await writeFile(path, bytes, { mode: 0o600 })
    return path
  }

  close(): void {
    this.#session?.detach().catch(() => undefined)
    rmSync(this.#folder, { recursive: true, force: true })
  }
}
