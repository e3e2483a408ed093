<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import TasterMark from '../table/TasterMark.vue'

/** What explains a verdict and never decides it: votes of just right, penalties, words, how tasters agree and repeat. */
const props = defineProps<{ verdict: Schemas['VerdictOut'] }>()
const scales = computed(() => [...new Set(props.verdict.sides.flatMap((side) => side.right.map((one) => one.scale)))])
const name = (side: Schemas['SideOut']) => side.name ?? `plate ${side.codes[0]}`
const votesOf = (side: Schemas['SideOut'], scale: string) => side.right.find((one) => one.scale === scale)
const points = (value: number) =>
  `${Math.abs(value).toFixed(1)} ${Math.abs(value).toFixed(1) === '1.0' ? 'point' : 'points'}`
const told = computed(() => props.verdict.tasters.filter((one) => one.says))
</script>

<template>
  <section
    v-if="scales.length || verdict.words.length || told.length"
    class="plate explains"
    aria-labelledby="explains"
  >
    <h2 id="explains">What explains it</h2>
    <p class="muted">This never decides; it says why.</p>
    <table v-if="scales.length" class="votes">
      <caption>
        Too little, just right, too much
      </caption>
      <thead>
        <tr>
          <td />
          <th v-for="side in verdict.sides" :key="side.codes[0]" scope="col">{{ name(side) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="scale in scales" :key="scale">
          <th scope="row">{{ scale }}</th>
          <td v-for="side in verdict.sides" :key="side.codes[0]">
            <template v-if="votesOf(side, scale)">
              {{ votesOf(side, scale)?.too_little }} · <b>{{ votesOf(side, scale)?.just_right }}</b> ·
              {{ votesOf(side, scale)?.too_much }}
            </template>
            <template v-else>–</template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-for="one in verdict.penalties" :key="`${one.scale} ${one.side}`">{{ one.says }}</p>
    <ul v-if="verdict.words.length" class="words" aria-label="Words">
      <li v-for="word in verdict.words.slice(0, 12)" :key="word.word">
        <b>{{ word.word }}</b> {{ word.said }}×
        <span class="muted">
          {{ verdict.sides.map((side, at) => `${name(side)} ${word.by_sample[at]}`).join(', ')
          }}<template v-if="word.points !== null && word.points !== undefined"
            >; liked {{ points(word.points) }} {{ word.points >= 0 ? 'more' : 'less' }} with it</template
          >
        </span>
      </li>
    </ul>
    <p v-if="verdict.agreement !== null && verdict.agreement !== undefined" class="muted">
      How far the tasters agree, 0 not at all and 1 wholly: {{ verdict.agreement.toFixed(2) }} (Kendall’s W).
    </p>
    <ul v-if="told.length" class="tasters" aria-label="Tasters">
      <li v-for="one in told" :key="one.taster">
        <TasterMark :name="one.taster" blind />
        <span class="muted">{{ one.says }}</span>
      </li>
    </ul>
    <p v-if="verdict.guesses" class="muted">
      {{ verdict.guesses.right }} of {{ verdict.guesses.of }} guessed which plate was which{{
        verdict.guesses.half_blind ? ': more than chance would' : ', as chance would'
      }}.
    </p>
  </section>
</template>

<style scoped>
.explains {
  padding: var(--s-20) var(--s-24);
}
.explains p {
  margin: var(--s-4) 0;
  font-size: var(--t-m);
}
.votes {
  border-collapse: collapse;
  width: 100%;
  font-size: var(--t-m);
  margin: var(--s-8) 0;
}
caption {
  text-align: left;
  font-size: var(--t-s);
  color: var(--muted);
}
.votes th,
.votes td {
  border-top: 1px solid var(--line);
  padding: var(--s-4) var(--s-8) var(--s-4) 0;
  text-align: left;
  font-variant-numeric: tabular-nums;
}
.votes th[scope='row']::first-letter {
  text-transform: uppercase;
}
ul {
  list-style: none;
  margin: var(--s-8) 0;
  padding: 0;
  font-size: var(--t-m);
}
.words li {
  border-top: 1px solid var(--line);
  padding: var(--s-4) 0;
}
.tasters {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: var(--s-6) var(--s-16);
}
.tasters li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-4) var(--s-8);
}
</style>
