/** The worker in which PDF pages are read. */
import 'pdfjs-dist/build/pdf.worker.min.mjs'
