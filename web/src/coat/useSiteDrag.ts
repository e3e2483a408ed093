import { computed, ref } from 'vue'

/** Places are shares of the face, from the thick end and from the top. */
type Place = [number, number]
interface Held {
  what: 'site' | 'bone'
  at: number
  end: number
  place: Place
  moved: boolean
}

/** Drags sites and the ends of bones: where they are shown meanwhile, and that they were put down. */
export function useSiteDrag(of: {
  sites: () => number[][]
  bones: () => number[][]
  where: (event: PointerEvent) => Place
  put: (at: number, place: Place) => void
  putEnd: (at: number, end: number, place: Place) => void
}) {
  const held = ref<Held | null>(null)
  function grab(event: PointerEvent, what: Held['what'], at: number, end = 0) {
    held.value = { what, at, end, place: of.where(event), moved: false }
  }
  function drag(event: PointerEvent) {
    if (held.value) held.value = { ...held.value, place: of.where(event), moved: true }
  }
  function drop() {
    const one = held.value
    held.value = null
    if (!one?.moved) return
    if (one.what === 'site') of.put(one.at, one.place)
    else of.putEnd(one.at, one.end, one.place)
  }
  const shownSites = computed(() =>
    of.sites().map((site, n) => (held.value?.what === 'site' && held.value.at === n ? held.value.place : site)),
  )
  const shownBones = computed(() =>
    of.bones().map((bone, n) => {
      if (held.value?.what !== 'bone' || held.value.at !== n) return bone
      const moved = [...bone]
      moved.splice(held.value.end * 2, 2, ...held.value.place)
      return moved
    }),
  )
  const cancel = () => (held.value = null)
  return { grab, drag, drop, cancel, shownSites, shownBones }
}
