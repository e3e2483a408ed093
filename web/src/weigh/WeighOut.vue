<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { provide, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import { say } from '../kit/notice'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import BatchMixed from './BatchMixed.vue'
import RescuePlate from './RescuePlate.vue'
import ScaleHands from './ScaleHands.vue'
import { SCALE, useBatch } from './useBatch'
import { useScale } from './useScale'
import { useWeighing } from './useWeighing'
import WeighDial from './WeighDial.vue'
import WeighList from './WeighList.vue'
import { sure } from '../kit/sure'

/** Weigh-out: one ingredient at a time in big type, at arm's length, with whatever scale is connected. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const bench = useBatch(props.id)
provide(SCALE, bench)
const { batch, current, loadError } = bench
const scale = useScale()

const {
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
} = useWeighing(bench, scale)
useEventListener(window, 'focus', () => void bench.load())
// back after the server was away: what it kept is what counts
watch(scale.away, (gone) => gone || void bench.load())

const leave = useChange('batches', async () => {
  const path = { batch_id: props.id }
  await call(
    api.POST('/api/batches/{batch_id}/leave', { params: { path }, body: { version: sure(batch.value).version } }),
  )
  say('Put aside with all that was weighed.', async () => {
    await call(api.POST('/api/batches/{batch_id}/restore', { params: { path } }))
    await router.push(`/blend/weigh/${props.id}`)
  })
  await router.push(`/blend/${sure(batch.value).blend}`)
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
      <BatchMixed v-else />
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
