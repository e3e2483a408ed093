<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, sentenceOf } from '../api/client'
import { usePreferences, useSetPreferences } from '../app/preferences'
import Choice from '../kit/Choice.vue'
import Tick from '../kit/Tick.vue'
import When from '../kit/When.vue'
import { dayAndTime, duration, longDay, time } from '../kit/units'
import ClashPlate from './ClashPlate.vue'
import ClockList from './ClockList.vue'
import DayLanes from './DayLanes.vue'
import DaySteps from './DaySteps.vue'
import DayWhere from './DayWhere.vue'
import EatersPlate from './EatersPlate.vue'
import OnFires from './OnFires.vue'
import SidesPlate from './SidesPlate.vue'
import StartNow from './StartNow.vue'
import TakeAlong from './TakeAlong.vue'
import { useDay, whose } from './useDay'

/** Day: a cook from the serving time backwards; when to light the fire, who does what when, what clashes. */
const props = defineProps<{ id?: string }>()
const { show } = usePreferences()
const set = useSetPreferences()
const { data: home } = useQuery({ queryKey: ['home'], queryFn: () => call(api.GET('/api/cooks/in-hand')) })
const id = computed(() => props.id ?? home.value?.cook?.id)
const { day, error, ways, looking, look, stop, move, save, take, tick, keepPlan, beginNow } = useDay(id)

const serve = computed({
  get: () => day.value?.day.serve_at ?? '',
  set: (at: string) => {
    if (at && Date.parse(at) !== Date.parse(serve.value)) void move({ serve_at: at })
  },
})
const people = computed({
  get: () => String(day.value?.people ?? 1),
  set: (count: string) => void move({ people: Number(count) }),
})
const counts = ['1', '2', '3', '4'].map((value) => ({ value, text: value }))
/** When pieces come off, nine times in ten, and until when they can wait. */
const off = computed(() =>
  (day.value?.day.lanes ?? []).flatMap(({ letter, off_low: low, off_high: high, waits_until }) => {
    if (!low || !high) return []
    const name = day.value?.pieces.find((piece) => piece.letter === letter)?.name ?? letter
    const waits = waits_until ? `, and can wait hot until ${time(waits_until)}` : ''
    const when = low === high ? `at ${time(low)}` : `between ${time(low)} and ${time(high)}`
    return [`${name} comes off ${when}${waits}.`]
  }),
)
const problems = computed(() => day.value?.pieces.filter((piece) => piece.problem) ?? [])
const names = computed(() => Object.fromEntries((day.value?.pieces ?? []).map((piece) => [piece.letter, piece.name])))
const unfired = computed(() => {
  const sides = new Set((day.value?.pieces ?? []).filter((piece) => piece.side).map((piece) => piece.letter))
  const lanes = (day.value?.day.lanes ?? []).filter(
    (lane) => !lane.off.length && lane.letter !== 'way' && !sides.has(lane.letter) && lane.blocks.length,
  )
  return lanes.map((lane) => lane.letter).join(', ')
})
</script>

<template>
  <main>
    <header class="station-head">
      <div>
        <h1>{{ day ? day.name : 'Day' }}</h1>
        <p v-if="day" class="muted">{{ longDay(day.day.serve_at) }} {{ time(day.day.serve_at) }} at the table</p>
      </div>
      <span v-if="day" class="tools">
        <When v-model="serve" label="Supper" />
        <Choice v-model="people" label="Pairs of hands" :options="counts" />
      </span>
    </header>
    <p v-if="error" class="muted" role="status">{{ sentenceOf(error) }} Trying again …</p>
    <p v-else-if="home && !id" class="plate none">
      No cook is in hand. <router-link to="/">Begin one at home</router-link>, and its day is planned here.
    </p>
    <p v-else-if="!day" class="muted" role="status">Planning the day …</p>
    <template v-if="day">
      <section class="answer lit" aria-label="When to light the fire">
        <p v-if="day.day.light_at" class="big">
          {{ day.day.lights }} <span class="at">{{ dayAndTime(day.day.light_at) }}</span>
        </p>
        <p v-else class="big">Begin {{ dayAndTime(day.day.begins_at) }}</p>
        <div class="sure">
          <p v-if="day.day.lanes.some((lane) => lane.off_low !== lane.off_high)">
            Supper is in time {{ day.day.in_time }} times in 20: each grain is one chance in twenty.
          </p>
          <p v-for="says in off" :key="says">{{ show.sentence(says) }}</p>
          <p>{{ duration(day.day.hands_min * 60) }} of work in all, from {{ dayAndTime(day.day.begins_at) }}.</p>
        </div>
      </section>
      <p v-if="day.asked" class="ask">
        Times are those of {{ day.zone }}.
        <button type="button" class="link" @click="set({ zone: day.zone })">That is where we cook</button>
      </p>
      <DayLanes :day="day" @serve="serve = $event" @pin="move({ pin: $event })" />
      <p v-for="piece in problems" :key="piece.letter" class="plate wrong">
        {{ piece.letter }}, {{ piece.name }}, is not planned: {{ piece.problem }}
        <router-link :to="`/coat/${day.id}`">Put it right in Coat</router-link>
      </p>
      <p v-if="unfired" class="muted">
        How {{ unfired }} is cooked was not said, so its time on the fire is the usual one of its cut.
        <router-link :to="`/coat/${day.id}`" class="link">Say it in Coat</router-link>, and you see how sure it is.
      </p>
      <div class="below">
        <section class="plate next" aria-label="Next three">
          <h2>Next three</h2>
          <ol>
            <li v-for="step in day.next" :key="`${step.letter} ${step.begins_at}`">
              <Tick :model-value="false" @update:model-value="tick({ letter: step.letter, key: step.key, done: true })">
                <b>{{ dayAndTime(step.begins_at) }}</b> {{ whose(day, step.letter) }}{{ show.sentence(step.says) }}
              </Tick>
            </li>
          </ol>
          <p v-if="!day.next.length" class="muted">All of it is done.</p>
        </section>
        <ClashPlate
          v-if="day.day.clashes.length"
          :clashes="day.day.clashes"
          :ways="ways"
          :looking="looking"
          @take="take"
          @look="look()"
          @stop="stop"
        />
      </div>
      <DaySteps :day="day" @tick="tick" @keep="keepPlan" />
      <div class="more">
        <StartNow :day="day" @take="beginNow" />
        <SidesPlate :day="day" :save="save" />
        <OnFires :day="day" :save="save" />
        <DayWhere :day="day" :save="save" />
        <TakeAlong :day="day" />
        <EatersPlate :id="day.id" :names="names" />
        <ClockList :day="day" />
      </div>
    </template>
  </main>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-16);
  align-items: end;
}
.lit {
  padding: var(--s-20) var(--s-24);
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: var(--s-16);
  align-items: center;
}
.lit p {
  margin: 0;
}
.lit .big {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-big);
  line-height: 1.15;
}
.at {
  white-space: nowrap;
}
.sure {
  font-size: var(--t-s);
  display: grid;
  gap: var(--s-2);
}
.ask {
  margin: var(--s-10) 0 0;
  font-size: var(--t-s);
}
main > .plate,
.below,
.more {
  margin-top: var(--s-14);
}
.more {
  columns: 3 340px;
  column-gap: var(--s-14);
}
.more > * {
  break-inside: avoid;
  margin: 0 0 var(--s-14);
}
.wrong,
.none {
  padding: var(--s-14) var(--s-20);
}
.below {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 360px), 1fr));
  gap: var(--s-14);
}
.next {
  padding: var(--s-16) var(--s-20);
}
.next ol {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
  display: grid;
  gap: var(--s-4);
}
@media (max-width: 720px) {
  .lit {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s-8);
  }
}
</style>
