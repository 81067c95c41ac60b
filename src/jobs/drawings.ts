/** Drawings of floors, kept whole as files. */
export { FilesFullError, FileTooLargeError, keepFile, readFileParts } from '../store/files'
export { findDrawing, keepDrawing, largestDrawing, loadSite } from '../store/sites'
