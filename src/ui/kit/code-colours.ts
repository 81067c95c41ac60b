/** How text of a card is coloured, by the roles of the page: it changes with the scheme. */
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { EditorView } from '@codemirror/view'
import { tags } from '@lezer/highlight'

const frame = EditorView.theme({
  '&': { height: '100%', color: 'var(--ink)', backgroundColor: 'var(--sheet)', fontSize: '13px' },
  '&.cm-focused': { outline: '2px solid var(--plum)', outlineOffset: '-2px' },
  '.cm-scroller': { fontFamily: 'var(--mono)', lineHeight: '1.5' },
  // Room below the last line, for the words that open there.
  '.cm-content': { caretColor: 'var(--ink)', paddingBottom: '120px' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-gutters': { color: 'var(--soft)', backgroundColor: 'var(--tab)', border: 'none' },
  '.cm-activeLine': { backgroundColor: 'transparent' },
  '.cm-activeLineGutter': { color: 'var(--ink)', backgroundColor: 'transparent' },
  '&.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground, .cm-selectionBackground': {
    backgroundColor: 'var(--plum-wash)',
  },
  '.cm-selectionMatch, &.cm-focused .cm-matchingBracket': { backgroundColor: 'var(--plum-wash)' },
  '.cm-foldPlaceholder': { color: 'var(--soft)', backgroundColor: 'transparent', borderColor: 'var(--rule)' },
  '.cm-tooltip, .cm-panels': {
    color: 'var(--ink)',
    backgroundColor: 'var(--sheet)',
    border: '1px solid var(--rule)',
    borderRadius: '6px',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--mono)', fontSize: '13px', maxHeight: '16em' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { color: 'var(--plum)', backgroundColor: 'var(--plum-wash)' },
  '.cm-completionIcon': { display: 'none' },
  '.cm-completionDetail': { color: 'var(--soft)', fontStyle: 'normal', marginLeft: '1.5em' },
  '.cm-diagnostic-error': { borderLeftColor: 'var(--flare)' },
  '.cm-lint-marker-error': { content: 'none', color: 'var(--flare)', fontWeight: '700', textAlign: 'center' },
  '.cm-lint-marker-error::before': { content: '"!"' },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--flare)',
    textUnderlineOffset: '3px',
  },
})

const words = HighlightStyle.define([
  { tag: [tags.propertyName, tags.definition(tags.propertyName)], color: 'var(--ink)', fontWeight: '650' },
  { tag: [tags.string, tags.content], color: 'var(--ink)' },
  { tag: [tags.comment, tags.lineComment], color: 'var(--soft)' },
  { tag: [tags.punctuation, tags.separator, tags.squareBracket, tags.brace], color: 'var(--soft)' },
])

export const codeColours = [frame, syntaxHighlighting(words)]
