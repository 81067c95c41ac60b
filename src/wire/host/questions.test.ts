import type { AddressInfo } from 'node:net'
import { connect, createServer, type Server, type Socket } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { z } from 'zod'
import { english } from '../../../tests/support/english'
import { linesOf } from '../../core/questions/lines'
import { answerLine } from '../../core/questions/question'
import { HostAwayError } from './host'
import { askOver, QuestionRefused } from './questions'

const table = {
  double: { ask: z.object({ of: z.number() }), answer: z.object({ is: z.number() }) },
  after: { ask: z.object({ ms: z.number() }), answer: z.object({}) },
}
let server: Server | undefined
const sockets: Socket[] = []
afterEach(() => {
  for (const socket of sockets.splice(0)) socket.destroy()
  server?.close()
})

/** Somebody who answers; `corrupt` says what is sent in place of an answer. */
async function answering(corrupt?: string) {
  const listening = createServer((socket) => {
    sockets.push(socket)
    const take = linesOf((line) => {
      const answer = answerLine(
        table,
        {
          double: ({ of }) => ({ is: of * 2 }),
          after: ({ ms }) => new Promise((resolve) => setTimeout(() => resolve({}), ms)),
        },
        line,
      )
      void answer.then((text) => socket.write(corrupt ?? text))
    })
    socket.on('data', take).on('error', () => undefined)
  })
  server = listening
  await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve))
  const { port } = listening.address() as AddressInfo
  return askOver(
    table,
    () =>
      new Promise((resolve, reject) => {
        const socket = connect(port, '127.0.0.1', () => resolve(socket)).once('error', reject)
      }),
  )
}

describe('questions over one stream', () => {
  it('are answered in any order, each to whoever asked it', async () => {
    const { ask } = await answering()
    const slow = ask('after', { ms: 30 })
    const many = await Promise.all(Array.from({ length: 200 }, (_, of) => ask('double', { of })))
    expect(many.map(({ is }) => is)).toEqual(Array.from({ length: 200 }, (_, of) => of * 2))
    await slow
    expect(sockets).toHaveLength(1)
  })

  it('are refused with the reason where they are not understood', async () => {
    const { ask } = await answering()
    await expect(ask('double', { of: 'x' as never })).rejects.toThrow(QuestionRefused)
    await expect(english(ask('nothing' as never, {} as never))).rejects.toThrow('there is no question "nothing"')
    expect(await ask('double', { of: 2 })).toEqual({ is: 4 })
  })

  it('fail when the other end is lost, and go over a new stream afterwards', async () => {
    const { ask, losses } = await answering()
    expect(losses()).toBe(0)
    const lost = ask('after', { ms: 5000 })
    await ask('double', { of: 1 })
    for (const socket of sockets) socket.destroy()
    await expect(lost).rejects.toThrow(HostAwayError)
    expect(await ask('double', { of: 4 })).toEqual({ is: 8 })
    expect(sockets).toHaveLength(2)
    // Lost once, and opened anew once: lanes of a helper go with either.
    expect(losses()).toBe(2)
  })

  it('fail when the answer is garbage, or nobody is there', async () => {
    const { ask } = await answering('garbage\n')
    await expect(ask('double', { of: 1 })).rejects.toThrow(HostAwayError)
    const nobody = askOver(table, () => Promise.reject(new Error('nobody listens')))
    await expect(english(nobody.ask('double', { of: 1 }))).rejects.toThrow('the wire does not work: nobody listens')
  })
})
