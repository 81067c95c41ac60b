/** A drawing that somebody chose: a picture as it is, a page of a PDF as a picture. */
import { loadPdf, pdfWorkerAddress } from '../state/as-shipped'

export type DrawingReading =
  | { readonly ok: true; readonly file: File; readonly widthPx: number; readonly heightPx: number }
  | { readonly ok: false; readonly sentence: string }

/** Longest side that a page of a PDF is drawn with, pixels. */
const longestPx = 2400

export async function readDrawing(file: File): Promise<DrawingReading> {
  try {
    if (file.type === 'application/pdf' || file.name.toLowerCase().endsWith('.pdf')) return await readPdf(file)
    const address = URL.createObjectURL(file)
    try {
      const image = new Image()
      image.src = address
      await image.decode()
      // An SVG without a size of its own still has a shape.
      const [widthPx, heightPx] = [image.naturalWidth || 1000, image.naturalHeight || 1000]
      return { ok: true, file, widthPx, heightPx }
    } finally {
      URL.revokeObjectURL(address)
    }
  } catch {
    return {
      ok: false,
      sentence: `${file.name} cannot be shown. Take SVG, PNG, JPEG or PDF; save it anew if it is one of them.`,
    }
  }
}

/** The first page. */
async function readPdf(file: File): Promise<DrawingReading> {
  const pdf = await loadPdf()
  pdf.GlobalWorkerOptions.workerPort = new Worker(pdfWorkerAddress, { type: 'module' })
  const document = await pdf.getDocument({ data: await file.arrayBuffer(), isEvalSupported: false }).promise
  const page = await document.getPage(1)
  const natural = page.getViewport({ scale: 1 })
  const viewport = page.getViewport({ scale: longestPx / Math.max(natural.width, natural.height) })
  const canvas = globalThis.document.createElement('canvas')
  canvas.width = Math.round(viewport.width)
  canvas.height = Math.round(viewport.height)
  await page.render({ canvas, viewport }).promise
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'))
  await document.destroy()
  if (!blob) return { ok: false, sentence: `The first page of ${file.name} cannot be drawn.` }
  return {
    ok: true,
    file: new File([blob], file.name.replace(/\.pdf$/i, '.png'), { type: 'image/png' }),
    widthPx: canvas.width,
    heightPx: canvas.height,
  }
}
