import type { DragEvent } from 'react'

/** Lets a field take the text of a file that is dropped on it. */
export function dropsText(onText: (text: string) => void) {
  return {
    onDragOver: (event: DragEvent) => event.preventDefault(),
    onDrop: (event: DragEvent) => {
      const file = event.dataTransfer.files[0]
      if (!file) return
      event.preventDefault()
      void file.text().then(onText)
    },
  }
}
