import { ref, type Ref } from 'vue'

/** What makes or adds something: pressed again before it is done, it is not done twice. `busy` says it is at it. */
export function once<Given extends unknown[], Done>(
  work: (...given: Given) => Promise<Done>,
): ((...given: Given) => Promise<Done | undefined>) & { busy: Ref<boolean> } {
  const busy = ref(false)
  async function act(...given: Given) {
    if (busy.value) return undefined
    busy.value = true
    try {
      return await work(...given)
    } finally {
      busy.value = false
    }
  }
  return Object.assign(act, { busy })
}
