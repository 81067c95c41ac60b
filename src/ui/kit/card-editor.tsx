'use client'
import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete'
import { yaml } from '@codemirror/lang-yaml'
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint'
import { EditorState, type Line } from '@codemirror/state'
import { EditorView, tooltips } from '@codemirror/view'
import { basicSetup } from 'codemirror'
import { useEffect, useRef } from 'react'
import { completeCard } from '../../core/kit/card-completion'
import type { CardFault } from '../../core/kit/kit-card'
import { sentence } from '../../words/en/sentence'
import sheetClasses from '../theme/sheet.module.css'
import { codeColours } from './code-colours'
import classes from './kit.module.css'

/** A card as YAML: what is wrong with a line stands in its margin, what fits is offered while typing. */
export function CardEditor({
  yaml: text,
  faults,
  line,
  onChange,
}: {
  yaml: string
  faults: readonly CardFault[]
  /** Line to go to, each time that another object is given; undefined to stay. */
  line: { readonly number: number } | undefined
  onChange: (yaml: string) => void
}) {
  const box = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView>(undefined)
  const changed = useRef(onChange)
  changed.current = onChange

  useEffect(() => {
    if (!box.current) return
    const editor = new EditorView({ parent: box.current, state: stateOf('', (written) => changed.current(written)) })
    view.current = editor
    return () => editor.destroy()
  }, [])

  // Another card was chosen, or what was typed is taken back: it is not the editor's own news.
  useEffect(() => {
    const editor = view.current
    if (!editor || editor.state.doc.toString() === text) return
    editor.setState(stateOf(text, (written) => changed.current(written)))
  }, [text])

  useEffect(() => {
    const editor = view.current
    if (editor) editor.dispatch(setDiagnostics(editor.state, diagnosticsOf(editor.state, faults)))
  }, [faults])

  useEffect(() => {
    const editor = view.current
    if (!editor || !line) return
    const { from } = lineOf(editor.state, line.number)
    editor.dispatch({ selection: { anchor: from }, effects: EditorView.scrollIntoView(from, { y: 'center' }) })
    editor.focus()
  }, [line])

  return <div ref={box} className={`${sheetClasses.sheet} ${classes.editor}`} />
}

function stateOf(doc: string, onChange: (text: string) => void): EditorState {
  return EditorState.create({
    doc,
    extensions: [
      basicSetup,
      yaml(),
      autocompletion({ override: [offer] }),
      // What stands beyond the editor's frame is cut off: at its foot, words open upwards.
      tooltips({ tooltipSpace: (view) => view.dom.getBoundingClientRect() }),
      EditorView.scrollMargins.of(() => ({ bottom: 110 })),
      lintGutter(),
      codeColours,
      // It scrolls with its text, so the text can be reached by keys.
      EditorView.contentAttributes.of({ 'aria-label': 'The card as YAML', tabindex: '0' }),
      EditorView.updateListener.of((update) => {
        if (update.docChanged) onChange(update.state.doc.toString())
      }),
    ],
  })
}

function offer(context: CompletionContext): CompletionResult | null {
  const { from, words } = completeCard(context.state.doc.toString(), context.pos)
  // Before a word is begun, what could stand there is shown to whoever asks.
  if (words.length === 0 || (from === context.pos && !context.explicit)) return null
  return {
    from,
    options: words.map(({ word, kind, about }) => ({
      label: word,
      apply: kind === 'field' ? `${word}: ` : word,
      detail: about,
    })),
    validFor: /^[\w.-]*$/,
  }
}

/** A line by its number; the nearest one where the text has become shorter meanwhile. */
function lineOf({ doc }: EditorState, number: number): Line {
  return doc.line(Math.min(Math.max(1, number), doc.lines))
}

function diagnosticsOf(state: EditorState, faults: readonly CardFault[]): Diagnostic[] {
  return faults
    .map(({ line, field, reason }): Diagnostic => {
      const { from, to } = lineOf(state, line)
      return { from, to, severity: 'error', message: field === '' ? sentence(reason) : `${field}: ${sentence(reason)}` }
    })
    .sort((a, b) => a.from - b.from)
}
