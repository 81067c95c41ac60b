'use client'
import { type RefObject, useCallback, useEffect, useRef, useState } from 'react'
import { type Hand, type Told, type WindowRefusal, windowRefusalSchema } from '../../core/showing/window-talk'
import { HandQueue } from './hand-queue'
import { newestInTurn } from './in-turn'
import { Prints } from './prints'
import { readStream } from './stream'

type Asked = Extract<Told, { question: number }>

export interface WindowState {
  readonly phase: 'opening' | 'open' | 'closed' | 'refused'
  readonly refusal?: WindowRefusal | 'no-runner'
  readonly why?: Extract<Told, { kind: 'closed' }>['why']
  readonly at?: Extract<Told, { kind: 'at' }>
  /** It shows a prompt, and no pages. */
  readonly terminal?: Extract<Told, { kind: 'terminal' }>
  readonly failed?: Extract<Told, { kind: 'failed' }>
  readonly cannot?: Extract<Told, { kind: 'cannot' }>
  readonly kept?: Extract<Told, { kind: 'kept' }>
  readonly ownLane?: Extract<Told, { kind: 'own-lane' }>
  readonly moved?: Extract<Told, { kind: 'moved' }>
  /** What hands have shown so far; undefined while they show nothing. */
  readonly shown?: Extract<Told, { kind: 'shown' }>
  /** Id of the access point whose values are put in; undefined where they are the unit's own. */
  readonly actingFor?: string | undefined
  readonly likely?: Extract<Told, { kind: 'likely' }>
  readonly card?: Extract<Told, { kind: 'card' }>
  readonly rehearsed?: Extract<Told, { kind: 'rehearsed' }>
  readonly closingInSeconds?: number
  /** What the page asks and a picture does not show, the oldest first. */
  readonly asked: readonly Asked[]
  /** From a press to the next picture, ms. */
  readonly latencyMs?: number
}

const opening: WindowState = { phase: 'opening', asked: [] }

function next(state: WindowState, told: Told): WindowState {
  switch (told.kind) {
    case 'at': {
      const { failed: _failed, cannot: _cannot, kept: _kept, ...rest } = state
      return { ...rest, phase: 'open', at: told }
    }
    case 'terminal':
      return { ...state, phase: 'open', terminal: told }
    case 'prints':
      return withoutFailed(state)
    case 'failed':
      return { ...state, phase: 'open', failed: told }
    case 'cannot':
      return { ...state, cannot: told }
    case 'kept':
      return { ...state, kept: told }
    case 'own-lane':
      return { ...state, ownLane: told }
    case 'moved':
      return { ...state, moved: told }
    case 'shown':
      return { ...state, phase: 'open', shown: told }
    case 'acting-for':
      return { ...state, actingFor: told.unit ?? undefined }
    case 'likely':
      return { ...state, likely: told }
    case 'card':
      return { ...state, card: told }
    case 'rehearsed':
      return { ...state, rehearsed: told }
    case 'closing':
      return { ...state, closingInSeconds: told.inSeconds }
    case 'closed':
      return { ...state, phase: 'closed', why: told.why, asked: [] }
    case 'settled':
      return { ...state, asked: state.asked.filter(({ question }) => question !== told.question) }
    case 'asks':
    case 'choices':
    case 'wants-login':
    case 'wants-file':
      return { ...state, phase: 'open', asked: [...state.asked, told] }
  }
}

/** It goes on after all. */
function withoutFailed(state: WindowState): WindowState {
  if (!state.failed) return state
  const { failed: _failed, ...rest } = state
  return rest
}

/** Hands came to nothing: of a window that was never opened, why it was not stays to be read. */
const lost = (state: WindowState): WindowState =>
  state.phase === 'open' ? { ...state, phase: 'closed', why: 'lost', asked: [] } : state

/** The window on a unit: opened when it is looked at, drawn on a canvas. */
export function useWindow(url: string, canvas: RefObject<HTMLCanvasElement | null>) {
  const [state, setState] = useState<WindowState>(opening)
  const [{ turn, at }, setTurn] = useState({ turn: 0, at: '' })
  const queue = useRef<HandQueue>(undefined)
  const pressedAt = useRef<number>(undefined)
  const [prints, setPrints] = useState(() => new Prints())

  // biome-ignore lint/correctness/useExhaustiveDependencies: another turn opens it anew
  useEffect(() => {
    const ending = new AbortController()
    setState(opening)
    const printed = new Prints()
    setPrints(printed)
    queue.current = new HandQueue(url, () => setState(lost))
    // Each takes its time to be read: an older one must not be drawn over a newer one.
    const picture = newestInTurn(async (jpeg: Blob) => {
      const bitmap = await createImageBitmap(jpeg)
      canvas.current?.getContext('2d')?.drawImage(bitmap, 0, 0)
      bitmap.close()
      const since = pressedAt.current
      pressedAt.current = undefined
      const latencyMs = since === undefined ? undefined : Math.round(performance.now() - since)
      setState((before) =>
        latencyMs === undefined && before.phase === 'open'
          ? before
          : { ...before, phase: 'open', ...(latencyMs === undefined ? {} : { latencyMs }) },
      )
    })
    const open = async (): Promise<void> => {
      const reply = await fetch(at === '' ? url : `${url}?at=${encodeURIComponent(at)}`, { signal: ending.signal })
      if (reply.ok && reply.body) {
        await readStream(reply.body, {
          picture,
          told: (told) => {
            if (told.kind === 'prints') printed.push(told.text)
            setState((before) => next(before, told))
          },
        })
        setState(lost)
        return
      }
      const refusal = windowRefusalSchema.safeParse(await reply.json().catch(() => undefined))
      setState({ phase: 'refused', asked: [], refusal: refusal.success ? refusal.data : 'no-runner' })
    }
    open().catch(() => {
      if (!ending.signal.aborted) setState({ phase: 'refused', asked: [], refusal: 'no-runner' })
    })
    return () => ending.abort()
  }, [url, canvas, turn])

  const act = useCallback((hand: Hand) => {
    const isPress = hand.kind !== 'pointer' || hand.phase === 'down'
    if (isPress && hand.kind !== 'wheel') pressedAt.current = performance.now()
    if (isPress) setState(({ closingInSeconds: _, ...rest }) => rest)
    queue.current?.push(hand)
  }, [])
  const close = useCallback(() => void fetch(url, { method: 'DELETE' }).catch(() => undefined), [url])
  /** @param address  where somebody says that it answers */
  const openAgain = useCallback(
    (address?: string) => setTurn((before) => ({ turn: before.turn + 1, at: address ?? before.at })),
    [],
  )
  /** Opens it anew, where the unit answers now. */
  const follow = useCallback(() => {
    void fetch(url, { method: 'DELETE' })
      .catch(() => undefined)
      .then(() => openAgain())
  }, [url, openAgain])
  return { state, prints, act, close, openAgain, follow }
}
