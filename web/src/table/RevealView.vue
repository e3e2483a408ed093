<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useChange } from '../api/change'
import { api, call } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import NumberedPlate from './NumberedPlate.vue'
import TasterMark from './TasterMark.vue'
import { useFair, useTable } from './useTable'

/** The moment that everybody watches: plates turn one by one, the one that was liked least first; it cannot be undone. */
const props = defineProps<{ id: string }>()
const { table, show } = useTable(toRef(props, 'id'))
const fair = useFair(toRef(props, 'id'))
const turned = ref(0)
const told = computed(() => table.value?.revealed ?? null)
const before = ref<boolean>()
watch(table, (now) => {
  if (now && before.value === undefined) before.value = !!now.revealed
})
const plates = computed(() => told.value?.plates ?? [])
const over = computed(() => !!told.value && turned.value >= plates.value.length)
const waiting = computed(
  () => table.value?.servings.filter((one) => one.state === 'waits').map((one) => one.taster) ?? [],
)
const reveal = useChange('trial', async () => {
  const params = { path: { trial_id: props.id } }
  const found = await call(api.POST('/api/trials/{trial_id}/reveal', { params }))
  // before it is shown: who turns the others at once must not have them turned back
  turned.value = 1
  await show(found)
})
const dealt = computed(() =>
  Object.entries(told.value?.dealt ?? {}).map(([letter, parts]) => `${letter} ${parts.join(', ')}`),
)
</script>

<template>
  <main v-if="table" class="reveal">
    <header class="station-head">
      <div>
        <h1>{{ table.question }}</h1>
        <p class="muted">
          {{ table.cook }}, {{ table.cards.length }} {{ table.cards.length === 1 ? 'card' : 'cards' }}
        </p>
      </div>
      <router-link class="link" :to="`/table/${id}`">Back to the table</router-link>
    </header>
    <section v-if="!told" class="answer before" aria-label="Reveal">
      <p class="big">{{ table.cards.length ? 'Everybody here?' : 'No card is in yet' }}</p>
      <p v-if="table.cards.length">
        What was hidden is told once and for good: cards that come in afterwards are not blind.
        <template v-if="waiting.length"
          >{{ waiting.join(', ') }} {{ waiting.length === 1 ? 'has' : 'have' }} not handed in yet.</template
        >
      </p>
      <p v-else>A reveal before the first card would end the blind test.</p>
      <div class="ways">
        <v-btn v-if="table.cards.length" class="on-dark" @click="reveal">Reveal, and turn the first plate</v-btn>
        <v-btn class="on-dark" :to="`/table/${id}`">Not yet</v-btn>
      </div>
    </section>
    <div v-else class="ways now">
      <v-btn v-if="turned < plates.length" class="solid" @click="turned++">{{
        turned ? 'Turn the next' : 'Turn the first plate'
      }}</v-btn>
      <v-btn v-if="turned < plates.length" @click="turned = plates.length">Turn all</v-btn>
      <v-btn v-if="over" class="solid" :to="`/verdict/${id}`">What the cards say</v-btn>
    </div>
    <ol class="plates" aria-label="The plates">
      <li
        v-for="(code, n) in told ? plates.map((plate) => plate.code) : table.codes"
        :key="code"
        :class="{ turned: n < turned }"
      >
        <div class="flip">
          <NumberedPlate :code="code" :size="200" />
          <div v-if="told && n < turned" class="back" role="status">
            <PieceBadge :letter="plates[n]?.letter ?? 'A'" />
            <b>{{ plates[n]?.name }}</b>
            <small>{{ code }}{{ plates[n]?.twin ? ', the hidden twin' : '' }}</small>
          </div>
        </div>
        <div v-if="told && n < turned" class="said">
          <p v-if="plates[n]?.best_of.length" class="best">
            best for <TasterMark v-for="name in plates[n]?.best_of" :key="name" :name="name" blind />
          </p>
          <p v-else class="muted">nobody’s best</p>
          <p v-if="plates[n]?.mean" class="muted">liked {{ plates[n]?.mean?.toFixed(1) }} of 9</p>
          <p v-if="plates[n]?.words.length" class="muted">{{ plates[n]?.words.join(', ') }}</p>
        </div>
      </li>
    </ol>
    <section v-if="over" class="plate hidden">
      <h2>What was hidden</h2>
      <p v-if="dealt.length">Dealt by lot: {{ dealt.join('; ') }}.</p>
      <p v-for="difference in fair?.differs" :key="difference.sentence">
        <b class="caution">Differed</b> {{ difference.sentence }}
      </p>
      <p v-if="fair && !fair.differs.length">Nothing recorded differed but the seasoning.</p>
      <p class="muted">The lot was drawn from the seed {{ told?.seed.slice(0, 12) }}…, kept with the trial.</p>
    </section>
  </main>
  <main v-else><h1>Reveal</h1></main>
</template>

<style scoped>
.before {
  padding: var(--s-24);
}
.before p {
  margin: var(--s-8) 0 0;
  color: var(--on-deep-soft);
  max-width: 60ch;
}
.before .big {
  font-size: var(--t-huge);
  margin: 0;
  color: #fff;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
  margin-top: var(--s-16);
}
.now {
  justify-content: center;
  min-height: 48px;
}
.plates {
  list-style: none;
  margin: var(--s-32) 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: var(--s-32);
}
li {
  display: grid;
  justify-items: center;
  align-content: start;
  gap: var(--s-12);
  width: 230px;
}
.flip {
  position: relative;
  width: 200px;
  height: 200px;
  perspective: 900px;
}
.flip > * {
  transition: transform 0.7s ease;
  backface-visibility: hidden;
}
.turned .flip > svg {
  transform: rotateY(180deg);
}
.back {
  position: absolute;
  inset: 0;
  border-radius: 50%;
  border: 4px solid var(--rim);
  background: var(--plate);
  display: grid;
  place-content: center;
  justify-items: center;
  gap: var(--s-4);
  text-align: center;
  animation: turn 0.7s ease;
}
.back b {
  font-family: var(--display);
  font-size: var(--t-h2);
  line-height: 1.1;
  max-width: 150px;
  overflow-wrap: anywhere;
}
@keyframes turn {
  from {
    transform: rotateY(-180deg);
  }
}
@media (prefers-reduced-motion: reduce) {
  .flip > * {
    transition: none;
  }
  .back {
    animation: none;
  }
}
.said {
  display: grid;
  gap: var(--s-4);
  justify-items: center;
  text-align: center;
}
.said p {
  margin: 0;
}
.best {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  align-items: center;
  gap: var(--s-6);
}
.hidden {
  padding: var(--s-20) var(--s-24);
  max-width: 760px;
  margin: 0 auto;
}
.hidden p {
  margin: var(--s-4) 0;
}
.caution {
  color: var(--caution);
}
@media (max-width: 720px) {
  .plates {
    gap: var(--s-16);
  }
  li {
    width: 150px;
  }
  .flip {
    width: 150px;
    height: 150px;
  }
  .flip svg {
    width: 150px;
    height: 150px;
    max-width: none;
  }
  .back b {
    font-size: var(--t-l);
  }
}
</style>
