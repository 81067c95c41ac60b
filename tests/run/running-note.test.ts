/** A folder of data belongs to one start at a time. */
import { rmSync } from 'node:fs'
import { expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { runningNote } from '../../scripts/lib/running-note.mjs'
import { passingFolder } from '../support/passing-folder'

it('is had by one of two starts at one moment, and the other learns who has it', async () => {
  const folder = passingFolder('air-muster-note-')
  try {
    const notes = [runningNote(folder), runningNote(`${folder}/`)]
    const found = await Promise.all(notes.map((note) => note.take()))
    expect(found.filter((earlier: unknown) => earlier === undefined)).toHaveLength(1)
    notes[found.indexOf(undefined)].tell({ address: 'http://127.0.0.1:1/' })
    expect(await runningNote(folder).take()).toMatchObject({ launcher: process.pid, address: 'http://127.0.0.1:1/' })
    // Another folder is another installation.
    expect(await runningNote(`${folder}/other`).take()).toBeUndefined()
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})
