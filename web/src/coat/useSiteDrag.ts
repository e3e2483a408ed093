import { computed, ref } from 'vue'
import { putEnd, type Bone, type Place } from './siteKeys'

interface Held {
  what: 'site' | 'bone'
  at: number
  end: number
  place: Place
  moved: boolean
}

/** Drags sites and the ends of bones: where they are shown meanwhile, and that they were put down. */
export function useSiteDrag(of: {
  sites: () => Place[]
  bones: () => Bone[]
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
      return putEnd(bone, held.value.end, held.value.place)
    }),
  )
  const cancel = () => (held.value = null)
  return { grab, drag, drop, cancel, shownSites, shownBones }
}
