/** Drawings of floors, kept whole as files. */
export { FileTooLargeError, keepFile, readFileParts } from '../store/files'
export { findDrawing, keepDrawing, largestDrawing } from '../store/sites'
