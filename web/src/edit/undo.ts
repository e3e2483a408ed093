import { onKeyStroke, useDebouncedRefHistory, useEventListener } from '@vueuse/core'
import { ref, type Ref } from 'vue'

type Field = HTMLInputElement | HTMLTextAreaElement
const isField = (of: EventTarget | null): of is Field =>
  of instanceof HTMLTextAreaElement || (of instanceof HTMLInputElement && /^(text|search)$/.test(of.type))

/**
 * Undo and redo of a document as it is typed, on Ctrl+Z and Ctrl+Shift+Z. In a field whose text is none of the document,
 * such as a search or a name asked for, they are the field's own.
 */
export function useUndo<Doc>(doc: Ref<Doc | null>, changed: () => void) {
  const ready = ref(false)
  /** While something is dragged, all of it is one step. */
  const held = ref(false)
  const moved = (): boolean => JSON.stringify(doc.value) !== JSON.stringify(history.last.value.snapshot)
  const history = useDebouncedRefHistory(doc, {
    deep: true,
    debounce: 250,
    capacity: 200,
    shouldCommit: () => ready.value && !held.value && moved(),
  })

  function step(by: 'undo' | 'redo') {
    if (moved()) history.commit() // what was typed a moment ago is a step too
    if (!(by === 'undo' ? history.canUndo.value : history.canRedo.value)) return
    history[by]()
    changed()
  }
  const undo = () => step('undo')
  const redo = () => step('redo')

  /** The field that is typed in, as it was when it was gone to, and the document then. */
  let entered: { field: Field; text: string; doc: string } | null = null
  useEventListener(document, 'focusin', ({ target }) => {
    entered = isField(target) ? { field: target, text: target.value, doc: JSON.stringify(doc.value) } : null
  })
  function ownsIt(target: EventTarget | null): boolean {
    if (!isField(target)) return false
    if (target.closest('.v-overlay')) return true
    return entered?.field === target && target.value !== entered.text && JSON.stringify(doc.value) === entered.doc
  }

  onKeyStroke(
    (event) => event.key.toLowerCase() === 'z' && (event.ctrlKey || event.metaKey) && !ownsIt(event.target),
    (event) => {
      event.preventDefault()
      if (event.shiftKey) redo()
      else undo()
    },
  )

  /** Begin a history at the document as it was loaded. */
  function beginHistory() {
    ready.value = true
    history.commit()
    history.clear()
  }

  /** Make what was changed up to now a step of its own. */
  function mark() {
    if (ready.value && moved()) history.commit()
  }

  function hold() {
    mark()
    held.value = true
  }
  function release() {
    held.value = false
    mark()
  }

  return { undo, redo, mark, hold, release, canUndo: history.canUndo, canRedo: history.canRedo, beginHistory }
}
