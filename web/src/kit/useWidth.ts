import { onBeforeUnmount, ref, watch, type Ref } from 'vue'

/** How wide an element is, as it is laid out. */
export function useWidth(of: Ref<HTMLElement | null | undefined>, before = 640): Ref<number> {
  const width = ref(before)
  const observer = new ResizeObserver(([entry]) => {
    if (entry?.contentRect.width) width.value = Math.floor(entry.contentRect.width)
  })
  watch(of, (now, was) => {
    if (was) observer.unobserve(was)
    if (now) observer.observe(now)
  }, { immediate: true }) // prettier-ignore
  onBeforeUnmount(() => observer.disconnect())
  return width
}
