import { onKeyStroke, useDebouncedRefHistory } from '@vueuse/core'
import { ref, type Ref } from 'vue'

/** Undo and redo of a document as it is typed, on Ctrl+Z and Ctrl+Shift+Z. */
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

  onKeyStroke(
    (event) => event.key.toLowerCase() === 'z' && (event.ctrlKey || event.metaKey),
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
