import { streamHeadBytes, streamKind, type Told, toldSchema } from '../../core/showing/window-talk'

export interface StreamReader {
  picture(jpeg: Blob): void
  told(told: Told): void
}

/** Takes a stream of a window apart, until it ends. */
export async function readStream(body: ReadableStream<Uint8Array>, { picture, told }: StreamReader): Promise<void> {
  const reader = body.getReader()
  let kept = new Uint8Array(0)
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    const joined = new Uint8Array(kept.length + value.length)
    joined.set(kept)
    joined.set(value, kept.length)
    kept = joined
    for (;;) {
      if (kept.length < streamHeadBytes) break
      const end = streamHeadBytes + new DataView(kept.buffer, kept.byteOffset).getUint32(0)
      if (kept.length < end) break
      const content = kept.slice(streamHeadBytes, end)
      if (kept[4] === streamKind.picture) picture(new Blob([content], { type: 'image/jpeg' }))
      else {
        const parsed = toldSchema.safeParse(JSON.parse(new TextDecoder().decode(content)))
        if (parsed.success) told(parsed.data)
      }
      kept = kept.slice(end)
    }
  }
}
