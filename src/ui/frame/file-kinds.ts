/** Kinds of files that a page takes, by type and ending: the same where one is dropped and where one is chosen. */
import type { Accept } from 'react-dropzone'

export const drawingFiles: Accept = {
  'image/svg+xml': ['.svg'],
  'image/png': ['.png'],
  'image/jpeg': ['.jpg', '.jpeg'],
  'application/pdf': ['.pdf'],
}
export const listFiles: Accept = { 'text/csv': ['.csv'], 'text/tab-separated-values': ['.tsv'], 'text/plain': ['.txt'] }
export const jobFiles: Accept = { 'application/json': ['.json'] }

/** Endings for the choice of a file: `.jpg,.jpeg,.png`. */
export const endingsOf = (kinds: Accept): string => Object.values(kinds).flat().join(',')
