<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { api, call, isConflict, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import { say } from '../kit/notice'
import { sure } from '../kit/sure'
import { longDay, time } from '../kit/units'
import { useDayOf, whose, zone } from '../day/useDay'
import BoardPiece from './BoardPiece.vue'
import CookList from './CookList.vue'
import FairTest from './FairTest.vue'
import NextBar from './NextBar.vue'
import { onBoard, timesOf } from './planned'

/** Comes when a cook is begun: the page shows its plates without it. */
const EmptyBook = defineAsyncComponent(() => import('./EmptyBook.vue'))
const NewCook = defineAsyncComponent(() => import('./NewCook.vue'))
const CookCard = defineAsyncComponent(() => import('./CookCard.vue'))
const carded = ref(false)

type Cook = Schemas['BoardOut']

const queries = useQueryClient()
const beginning = ref(false)
const begins = ref(false)
watch(beginning, () => (begins.value = true))
const { data: home, error } = useQuery({ queryKey: ['home'], queryFn: () => call(api.GET('/api/cooks/in-hand')) })
const cook = computed(() => home.value?.cook ?? null)
/** Whether no cook was ever begun, so that the page leads in. */
const { data: cooks } = useQuery({ queryKey: ['cooks'], queryFn: () => call(api.GET('/api/cooks')) })
const empty = computed(() => cooks.value?.length === 0)

async function show(changed: Cook) {
  await keep<Schemas['InHandOut']>(queries, ['home'], (before) => before && { ...before, cook: changed })
  void refresh(queries, ['cooks'], ['day'])
}

const begun = () => refresh(queries, ['home'], ['cooks'])

/** What is done to the cook in hand; when another window was first, it is shown what that did instead. */
const changing = <Given extends unknown[]>(act: (cook: Cook, ...given: Given) => Promise<Cook>) =>
  useChange(
    'cook in hand',
    async (...given: Given) => {
      if (cook.value) await show(await act(cook.value, ...given))
    },
    {
      refused: async (failure) => {
        if (!isConflict(failure)) return say(sentenceOf(failure))
        await refresh(queries, ['home'])
        say('This cook was changed in another window. It stands here as it is now; do that step again.')
      },
    },
  )
const stepPath = (of: Cook, stepId: string) => ({ cook_id: of.id, step_id: stepId })
const tick = changing((of, stepId: string, done: boolean) =>
  call(
    api.POST('/api/cooks/{cook_id}/steps/{step_id}', {
      params: { path: stepPath(of, stepId) },
      body: { version: of.version, done },
    }),
  ),
)
const setLength = changing((of, stepId: string, lasts: string) =>
  call(
    api.POST('/api/cooks/{cook_id}/steps/{step_id}', {
      params: { path: stepPath(of, stepId) },
      body: { version: of.version, lasts },
    }),
  ),
)
const even = changing((of, what: string) =>
  call(
    api.POST('/api/cooks/{cook_id}/even', {
      params: { path: { cook_id: of.id } },
      body: { version: of.version, what: what as 'salt' },
    }),
  ),
)
/** Its day: times on the board are those of the plan; as long as that is not there, none are told. */
const { day, error: unplanned } = useDayOf(computed(() => cook.value?.id))
const times = computed(() => (day.value ? timesOf(day.value.day.times) : unplanned.value ? timesOf([]) : null))
const next = computed(() => day.value?.next[0])
const nextStep = computed(() =>
  next.value ? onBoard(cook.value?.pieces ?? [], next.value)?.step.id : cook.value?.next?.step_id,
)
const tickDay = changing(async (of, step: Schemas['DayStep']) => {
  const params = { path: { cook_id: of.id }, query: { zone } }
  const body = { version: of.version, letter: step.letter, key: step.key, done: true }
  await call(api.POST('/api/cooks/{cook_id}/day/tick', { params, body }))
  return sure((await call(api.GET('/api/cooks/in-hand'))).cook)
})
function done(stepId: string | null) {
  if (stepId) void tick(stepId, true)
  else if (next.value) void tickDay(next.value)
}
</script>

<template>
  <main>
    <header>
      <div>
        <p class="muted over">{{ cook ? `${home?.household}, cook in hand` : home?.household }}</p>
        <h1 v-if="cook">{{ cook.name }}, {{ longDay(cook.serve_at) }} {{ time(cook.serve_at) }}</h1>
        <h1 v-else-if="home">{{ empty ? 'An empty book' : 'No cook in hand' }}</h1>
      </div>
      <span class="doings">
        <v-btn v-if="cook" class="quiet" @click="carded = true">Card</v-btn>
        <v-btn @click="beginning = true">New cook</v-btn>
      </span>
    </header>
    <p v-if="cook?.noted" class="noted"><b>Last time you noted:</b> {{ cook.noted }}</p>

    <p v-if="error" class="muted" role="status">{{ sentenceOf(error) }} Trying again …</p>
    <template v-if="cook">
      <NextBar
        v-if="next ?? (!day && cook.next)"
        :board="cook.next"
        :planned="next"
        :waits="!unplanned"
        :whose="day && next ? whose(day, next.letter) : ''"
        :pieces="cook.pieces"
        @done="done"
      />
      <p v-else class="answer all-done">Everything is done. <router-link to="/table">To the table</router-link></p>
      <div class="pieces">
        <BoardPiece
          v-for="(piece, n) in cook.pieces"
          :key="piece.typed.letter"
          :piece="piece"
          :cook-id="cook.id"
          :wide="n === cook.pieces.length - 1 && n % 2 === 0"
          :next-step="nextStep"
          :times="times"
          @tick="tick"
          @length="setLength"
        />
      </div>
      <FairTest v-if="cook.fair" :fair="cook.fair" :taps="!cook.trial?.cards" @even="even" />
    </template>
    <EmptyBook v-else-if="home && empty" @begin="beginning = true" />
    <div v-else-if="home" class="begin">
      <p class="muted">
        Begin one: a piece or more, how each is seasoned, and when it is served. Or take an earlier cook in hand again
        below, or
        <router-link to="/blend">formulate a blend</router-link> first.
      </p>
      <v-btn class="solid" @click="beginning = true">Begin a cook</v-btn>
    </div>
    <!-- below what comes from elsewhere, so that its rows do not move once they are there -->
    <CookList v-if="home || error" />
    <CookCard v-if="cook && carded" v-model="carded" :cook="cook" />
    <NewCook v-if="begins" v-model="beginning" @made="begun" />
  </main>
</template>

<style scoped>
.doings {
  display: flex;
  gap: var(--s-8);
}
.noted {
  margin: calc(-1 * var(--s-8)) 0 var(--s-16);
  max-width: 80ch;
  white-space: pre-line;
}
header > div {
  flex: 1 1 300px;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: end;
  gap: var(--s-12);
  margin-bottom: var(--s-14);
}
.over {
  margin: 0;
  font-weight: 600;
}
.pieces {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-20);
  margin: var(--s-16) 0;
}
/* one fills the page, an odd one its row */
.pieces > .wide {
  grid-column: 1 / -1;
}
.all-done {
  padding: var(--s-20) var(--s-24);
  font-size: var(--t-xl);
  margin: 0;
}
.all-done a {
  color: #fff;
  text-decoration: underline;
}
.begin {
  max-width: 60ch;
  font-size: var(--t-xl);
}
@media (max-width: 900px) {
  .pieces {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
