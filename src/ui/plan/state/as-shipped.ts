/**
 * Libraries that reach the page as their makers ship them, and only when they are wanted: each is larger than all of
 * our own code, and has been bundled by its makers already. scripts/lib/site.mjs puts the files below /vendor.
 */
import type * as Pdf from 'pdfjs-dist'
import type Plotly from 'plotly.js-dist-min'

export const pdfWorkerAddress = '/vendor/pdf.worker.min.mjs'

export const loadPdf = (): Promise<typeof Pdf> =>
  import(/* turbopackIgnore: true */ '/vendor/pdf.min.mjs' as string) as Promise<typeof Pdf>

type PlotlyLibrary = typeof Plotly

let plotly: Promise<PlotlyLibrary> | undefined

/** Plotly.js is a classic script that leaves one name behind. A load that failed is tried again by the next chart. */
export function loadPlotly(): Promise<PlotlyLibrary> {
  plotly ??= new Promise<PlotlyLibrary>((resolve, reject) => {
    const script = document.createElement('script')
    script.src = '/vendor/plotly.min.js'
    script.onload = () => resolve((globalThis as unknown as { Plotly: PlotlyLibrary }).Plotly)
    script.onerror = () => reject(new Error('The chart library could not be loaded.'))
    document.head.append(script)
  }).catch((error: unknown) => {
    plotly = undefined
    throw error
  })
  return plotly
}
