<script setup lang="ts">
import { onKeyStroke, useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import { say } from '../kit/notice'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import BatchMixed from './BatchMixed.vue'
import RescuePlate from './RescuePlate.vue'
import ScaleHands from './ScaleHands.vue'
import { useBatch } from './useBatch'
import { useScale } from './useScale'
import WeighDial from './WeighDial.vue'
import WeighList from './WeighList.vue'

/** Weigh-out: one ingredient at a time in big type, at arm's length, with whatever scale is connected. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const bench = useBatch(props.id)
const { batch, current, loadError } = bench
const scale = useScale()
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
  if (!live.value || zeroing.value || !shows.value?.settled || reading.value === null || bench.busy.value) return false
  return spooning.value ? reading.value < -least.value : reading.value > least.value
})

async function note() {
  const line = current.value
  if (!line || !canNote.value) return
  const grams = Number(reading.value!.toFixed(3))
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
  await bench.rescue(current.value!.id, 'spoon out')
}
onKeyStroke(' ', (event) => {
  const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, select, button, a')
  if (typing || rescuing.value === !spooning.value) return
  event.preventDefault()
  void (bySpoon.value ? noteSpoons() : note())
})
useEventListener(window, 'focus', () => void bench.load())
// back after the server was away: what it kept is what counts
watch(scale.away, (gone) => gone || void bench.load())

const leave = useChange('batches', async () => {
  const path = { batch_id: props.id }
  await call(api.POST('/api/batches/{batch_id}/leave', { params: { path }, body: { version: batch.value!.version } }))
  say('Put aside with all that was weighed.', async () => {
    await call(api.POST('/api/batches/{batch_id}/restore', { params: { path } }))
    await router.push(`/blend/weigh/${props.id}`)
  })
  await router.push(`/blend/${batch.value!.blend}`)
})
</script>

<template>
  <main v-if="batch" class="weigh-out">
    <header class="station-head">
      <div>
        <h1>{{ batch.name }}</h1>
        <p class="muted">
          <template v-if="batch.state === 'weighing' && current"
            >{{ place }} of {{ batch.lines.length }}, {{ batch.poured_g.toFixed(digits) }} of
            {{ batch.wanted_g.toFixed(digits) }} g in the bowl</template
          >
          <template v-else-if="batch.state === 'weighing'">All of it is in the bowl</template>
          <template v-else>Mixed</template>
          <template v-if="batch.salt">
            · salt
            <Why :figure="batch.salt" of="Salt of what was weighed">{{ percent(batch.salt.value) }}</Why>{{
              batch.state === 'weighing' ? ' so far' : ''
            }}, wanted {{ percent(batch.salt_wanted?.value ?? 0) }}</template
          >
        </p>
      </div>
      <div class="tools">
        <v-btn v-if="batch.last_pour && batch.state === 'weighing'" @click="bench.takeBack()">Take back</v-btn>
        <v-btn v-if="batch.state === 'weighing'" class="quiet" @click="leave">Put aside</v-btn>
        <v-btn :to="`/blend/${batch.blend}`" class="quiet">To the blend</v-btn>
      </div>
    </header>
    <div class="two">
      <div v-if="batch.state === 'weighing' && current" class="now">
        <WeighDial
          :line="current"
          :reading="reading"
          :scale="shown"
          :stands="stands"
          :spooning="spooning"
          :tiny="tiny"
          :compact="rescuing && !spooning"
          :digits="digits"
        />
        <RescuePlate
          v-if="rescuing && !spooning"
          :rescues="batch.rescues"
          :name="current.name"
          @scale-up="bench.rescue(current.id, 'scale up')"
          @accept="bench.rescue(current.id, 'accept')"
          @spoon-out="takeOut"
        />
        <div v-else class="acts">
          <v-btn v-if="bySpoon" class="solid next" :disabled="bench.busy.value" @click="noteSpoons">
            {{ current.poured_g ? 'The rest' : current.spoons }}
            {{ following ? `is in. Next: ${following.name}` : 'is in, that was the last' }}
          </v-btn>
          <v-btn v-else class="solid next" :class="stands" :disabled="!canNote" @click="note">
            <template v-if="spooning">It is out</template>
            <template v-else-if="stands === 'over'">Too much: put it right</template>
            <template v-else-if="stands === 'under'"
              >Note {{ (reading ?? 0).toFixed(digits) }} g, more to come</template
            >
            <template v-else-if="following">Next: {{ following.name }}</template>
            <template v-else>That was the last</template>
          </v-btn>
          <v-btn v-if="!bySpoon" :disabled="!live" @click="tare()">Tare</v-btn>
          <v-btn :class="{ solid: byHand }" :aria-pressed="byHand" @click="byHand = !byHand">By hand</v-btn>
          <v-btn v-if="tiny && !bySpoon" @click="bench.pourByHand(current.id, `${current.wanted_g.toFixed(3)} g`)"
            >{{ current.spoons }} by spoon</v-btn
          >
          <v-btn class="quiet" @click="bench.enough(current.id)">{{
            current.poured_g > 0 ? 'It is enough' : 'Leave it out'
          }}</v-btn>
        </div>
        <form
          v-if="spooning || (!rescuing && (byHand || (!live && !bySpoon)))"
          class="hand"
          @submit.prevent="noteByHand"
        >
          <label :for="`by-hand`">{{
            spooning ? 'How much you took out, weighed elsewhere' : 'Weighed elsewhere, or read off the display'
          }}</label>
          <v-text-field id="by-hand" v-model="amount" inputmode="decimal" autocomplete="off" placeholder="12.5 g" />
          <v-btn type="submit" :disabled="!amount.trim()">Note it</v-btn>
        </form>
        <ScaleHands :scale="scale" :resolution="batch.resolution_g" />
      </div>
      <BatchMixed v-else :bench="bench" />
      <WeighList :batch="batch" :digits="digits" />
    </div>
  </main>
  <main v-else>
    <p class="muted">{{ loadError || 'Opening the batch …' }}</p>
    <p v-if="loadError"><router-link to="/shelf">To the shelf</router-link></p>
  </main>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: var(--s-20);
  align-items: start;
}
.now {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-14);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
}
.next {
  flex: 1 1 320px;
  min-height: 64px;
  border-radius: 32px;
  font-size: var(--t-h2);
}
.next.over {
  background: var(--caution);
  border-color: var(--caution);
}
.acts .v-btn:not(.next) {
  min-height: 64px;
  border-radius: 32px;
}
.hand {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: var(--s-4) var(--s-10);
  max-width: 420px;
}
.hand label {
  grid-column: 1 / -1;
  font-size: var(--t-s);
  color: var(--muted);
}
.hand input {
  font-size: var(--t-h3);
}
@media (max-width: 1060px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 720px) {
  .station-head .tools {
    gap: var(--s-6);
  }
  .next {
    flex-basis: 100%;
  }
  .acts .v-btn:not(.next) {
    flex: 1 1 auto;
    min-height: 48px;
  }
}
</style>
