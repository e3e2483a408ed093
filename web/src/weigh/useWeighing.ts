import { onKeyStroke } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { BatchOnScale } from './useBatch'
import type { Scale } from './useScale'
import { sure } from '../kit/sure'

/** Weighing line by line: what lies on the scale, where the line stands with it, and how it is noted. */
export function useWeighing(bench: BatchOnScale, scale: Scale) {
  const { batch, current } = bench
  const shows = scale.now
  const digits = computed(() => ((batch.value?.resolution_g ?? 0.1) < 0.5 ? 1 : 0))
  const live = computed(() => shows.value?.state === 'live')
  /** Told to tare, and not settled since: what it still shows belongs to what was noted already. */
  const zeroing = ref(false)
  let tares = 0
  function zero() {
    tares = shows.value?.tares ?? 0
    zeroing.value = true
  }
  watch(shows, (now) => {
    if (!zeroing.value || now?.state === 'lost') zeroing.value = false
    else if (now && now.settled && now.tares !== tares) zeroing.value = false
  })
  /** What lies on the scale since it was tared, as long as it says anything. */
  const reading = computed(() => (!live.value ? null : zeroing.value ? 0 : (shows.value?.grams ?? null)))
  const shown = computed(() => (shows.value && zeroing.value ? { ...shows.value, settled: false } : shows.value))
  async function tare() {
    if (!zeroing.value) zero()
    if (!(await scale.tare())) zeroing.value = false
  }
  const rescuing = computed(() => (batch.value?.rescues.length ?? 0) > 0)
  const spooning = ref(false)
  watch(rescuing, (on) => on || (spooning.value = false))

  /** The line as it will stand when what the scale shows is noted. */
  const poured = computed(() => (current.value?.poured_g ?? 0) + (reading.value ?? 0))
  const stands = computed(() => {
    const line = current.value
    if (!line) return 'under'
    return poured.value > line.high_g + 1e-9 ? 'over' : poured.value < line.low_g - 1e-9 ? 'under' : 'met'
  })
  const following = computed(() => {
    const lines = batch.value?.lines ?? []
    return lines.find((line) => !line.done && line.id !== current.value?.id) ?? null
  })
  const place = computed(() => (batch.value?.lines.filter((line) => line.done).length ?? 0) + 1)
  /** Less than the scale can tell apart from nothing: a spoon is surer. */
  const tiny = computed(() => !!current.value && current.value.wanted_g < (batch.value?.resolution_g ?? 0.1) * 3)
  const least = computed(() => (batch.value?.resolution_g ?? 0.1) * 0.99)
  const canNote = computed(() => {
    if (!live.value || zeroing.value || !shows.value?.settled || reading.value === null || bench.busy.value)
      return false
    return spooning.value ? reading.value < -least.value : reading.value > least.value
  })

  async function note() {
    const line = current.value
    if (!line || !canNote.value) return
    const grams = Number(sure(reading.value).toFixed(3))
    const done = await bench.pour(line.id, grams, spooning.value ? 'spooned out' : 'weighed', zero)
    // what is in the bowl now is nothing to the scale: the next weight begins at 0
    if (done) await tare()
  }
  const amount = ref('')
  const byHand = ref(false)
  async function noteByHand() {
    if (!current.value || !amount.value.trim()) return
    if (await bench.pourByHand(current.value.id, amount.value, spooning.value)) {
      amount.value = ''
      if (live.value) await tare()
    }
  }
  /** Without a scale each line goes in by its spoons, at a tap. */
  const bySpoon = computed(() => shows.value?.state === 'none' && !spooning.value)
  async function noteSpoons() {
    const line = current.value
    if (line) await bench.pourByHand(line.id, `${(line.wanted_g - line.poured_g).toFixed(3)} g`)
  }
  async function takeOut() {
    spooning.value = true
    await bench.rescue(sure(current.value).id, 'spoon out')
  }
  onKeyStroke(' ', (event) => {
    const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, select, button, a')
    if (typing || rescuing.value === !spooning.value) return
    event.preventDefault()
    void (bySpoon.value ? noteSpoons() : note())
  })
  return {
    digits,
    live,
    reading,
    shown,
    tare,
    rescuing,
    spooning,
    stands,
    following,
    place,
    tiny,
    canNote,
    note,
    amount,
    byHand,
    noteByHand,
    bySpoon,
    noteSpoons,
    takeOut,
  }
}
