import type Sortable from 'sortablejs'
import { onBeforeUnmount, useTemplateRef, watch } from 'vue'

/** Rows of a list, in an element of the ref `list`, to drag by mouse or finger; told is from which row to which. */
export function useRowDrag(handle: string, move: (from: number, to: number) => void) {
  const list = useTemplateRef<HTMLElement>('list')
  let dragged: Sortable | undefined
  watch(
    list,
    async (box) => {
      dragged?.destroy()
      dragged = undefined
      if (!box) return
      // it loads with the first list that is dragged, not with the page
      const { default: Drag } = await import('sortablejs')
      if (list.value !== box) return
      dragged = Drag.create(box, {
        handle,
        animation: 120,
        // the browser's own dragging takes no fingers, and files dropped on a row move nothing
        forceFallback: true,
        delay: 160,
        delayOnTouchOnly: true,
        onUpdate({ item, oldIndex, newIndex }) {
          if (oldIndex === undefined || newIndex === undefined) return
          // the list is drawn from what it is of: put the row back, and let that say where it goes
          item.remove()
          box.insertBefore(item, box.children[oldIndex] ?? null)
          move(oldIndex, newIndex)
        },
      })
    },
    { immediate: true },
  )
  onBeforeUnmount(() => dragged?.destroy())
}
