<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, call } from '../api/client'
import Field from '../kit/Field.vue'
import { useQuestion } from '../api/question'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'
import { benchHere, type Doc } from './useBlend'

/** One batch shared out over its uses, and what is left for the jar. */
const uses = defineModel<NonNullable<Doc['uses']>>({ required: true })
const bench = benchHere()
const { show } = usePreferences()

const {
  answer: shared,
  errors,
  ask,
} = useQuestion({
  after: 120,
  ask: (signal) => call(api.POST('/api/blends/share-out', { body: bench.body(), signal })),
})
const { doc, reading, stored } = bench
// what takes of this blend is reckoned with it as it is saved
watch([uses, () => doc.value?.batch, reading, () => stored.value?.version], () => ask(), {
  deep: true,
  immediate: true,
})

const offers = computed(() =>
  (shared.value?.offers ?? []).filter((offer) => !uses.value.some((use) => use.of === offer.of)),
)
const taken = (at: number) => shared.value?.uses[at]
const short = computed(() => (shared.value?.left.value ?? 0) < -0.05)
const whole = computed(() =>
  Math.max(shared.value?.taken.value ?? 0, (shared.value?.taken.value ?? 0) + (shared.value?.left.value ?? 0)),
)
const width = (grams: number) => `${whole.value ? (Math.max(0, grams) / whole.value) * 100 : 0}%`

const name = ref('')
const mass = ref('')
function add() {
  if (!name.value.trim() || !mass.value.trim()) return
  uses.value = [...uses.value, { name: name.value.trim(), of: '', mass: mass.value.trim() }]
  name.value = mass.value = ''
}
const change = (at: number, typed: string) =>
  (uses.value = uses.value.map((use, i) => (i === at ? { ...use, mass: typed } : use)))
const remove = (at: number) => (uses.value = uses.value.filter((_, i) => i !== at))
</script>

<template>
  <section class="share" aria-label="Share it out">
    <p class="muted">One batch for several uses; what is left goes in the jar.</p>
    <div
      v-if="shared"
      class="batch"
      role="img"
      :aria-label="`Of the batch, ${show.mass(shared.taken.value)} is planned`"
    >
      <i v-for="(_, at) in uses" :key="at" :style="{ width: width(taken(at)?.mass_g ?? 0) }" :class="`u${at % 3}`" />
      <i v-if="!short" class="jar" :style="{ width: width(shared.left.value) }" />
    </div>
    <p v-if="shared" class="left" :class="{ short }" role="status">
      <template v-if="short">
        <Why :figure="shared.left" of="Left for the jar">{{ show.mass(-shared.left.value) }} short</Why>
      </template>
      <template v-else>
        <Why :figure="shared.left" of="Left for the jar">{{ show.mass(shared.left.value) }}</Why> for the jar
      </template>
    </p>
    <v-btn v-if="short && shared" class="solid" @click="bench.doc.value!.batch = `${shared.enough_g} g`"
      >Mix {{ show.mass(shared.enough_g) }}</v-btn
    >
    <ul v-if="uses.length">
      <li v-for="(use, at) in uses" :key="at">
        <i :class="`u${at % 3}`" aria-hidden="true" />
        <span class="what">{{ use.name }}</span>
        <span v-if="use.of" class="n">{{ taken(at)?.mass_g != null ? show.mass(taken(at)!.mass_g!) : '–' }}</span>
        <Field
          v-else
          :model-value="use.mass"
          :label="`Weight for ${use.name}`"
          hidden-label
          :error="errors[`uses.${at}.mass`]"
          class="mass"
          @update:model-value="change(at, $event)"
        />
        <v-btn class="quiet" :aria-label="`Remove ${use.name}`" @click="remove(at)">Remove</v-btn>
        <p v-if="taken(at)?.sentence && !errors[`uses.${at}.mass`]" class="says">{{ taken(at)!.sentence }}</p>
      </li>
    </ul>
    <div v-if="offers.length" class="offers">
      <h3>It is used here</h3>
      <button
        v-for="offer in offers"
        :key="offer.of"
        type="button"
        @click="uses = [...uses, { name: offer.name.slice(0, 80), of: offer.of, mass: '' }]"
      >
        <b>+ {{ show.mass(offer.mass_g) }}</b> {{ offer.name }}
      </button>
    </div>
    <form class="own" @submit.prevent="add">
      <Field v-model="name" label="Another use" placeholder="for the beans" />
      <Field v-model="mass" label="Takes" placeholder="20 g" class="mass" />
      <v-btn type="submit" :disabled="!name.trim() || !mass.trim()">Add</v-btn>
    </form>
  </section>
</template>

<style scoped>
.share {
  display: grid;
  gap: var(--s-12);
}
p,
h3 {
  margin: 0;
}
.muted {
  font-size: var(--t-s);
}
.batch {
  display: flex;
  height: 26px;
  border: 1.5px solid var(--rim);
  border-radius: 9px;
  overflow: hidden;
  background: var(--tint);
}
.batch i {
  border-right: 2px solid var(--plate);
}
i.u0 {
  background: var(--piece-a);
}
i.u1 {
  background: var(--piece-b);
}
i.u2 {
  background: var(--line-strong);
}
.jar {
  background: repeating-linear-gradient(45deg, transparent 0 5px, var(--line) 5px 8px);
}
.left {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h2);
}
.short {
  color: var(--stop);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 12px 1fr auto auto;
  gap: var(--s-4) var(--s-10);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-4) 0;
}
li i {
  width: 12px;
  height: 12px;
  border-radius: 4px;
}
.what {
  line-height: 1.25;
}
.mass {
  width: 96px;
}
.says {
  grid-column: 2 / -1;
  color: var(--caution);
  font-size: var(--t-s);
}
.offers {
  display: grid;
  gap: var(--s-4);
}
h3 {
  font-size: var(--t-s);
}
.offers button {
  text-align: left;
  border: 1.5px dashed var(--line-strong);
  border-radius: 12px;
  padding: var(--s-8) var(--s-12);
  font-size: var(--t-s);
  min-height: 38px;
}
.own {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: var(--s-10);
  align-items: end;
}
</style>
