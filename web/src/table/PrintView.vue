<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, toRef, watchEffect } from 'vue'
import Choice from '../kit/Choice.vue'
import { longDay } from '../kit/units'
import NumberedPlate from './NumberedPlate.vue'
import { askedAs, endsOf, isRight, RIGHT_WORDS } from './scales'
import { useTable } from './useTable'

/** Plate markers, who is served what, and paper cards: A4 or US Letter. Nothing of it tells which plate is which. */
const props = defineProps<{ id: string }>()
const { table } = useTable(toRef(props, 'id'))
const paper = useLocalStorage<'A4' | 'letter'>('ravska:paper', 'A4')
const what = useLocalStorage<'markers' | 'plan' | 'cards'>('ravska:print', 'markers')
const print = () => window.print()
// the size of a page cannot be said but in a rule of its own
const rule = document.head.appendChild(document.createElement('style'))
watchEffect(() => (rule.textContent = `@page { size: ${paper.value}; margin: 12mm; }`))
onBeforeUnmount(() => rule.remove())
const rows = computed(() => (table.value?.servings ?? []).filter((one) => one.state !== 'gone' && one.order.length))
/** Paper cards: one for everybody who waits, or some without a name where nobody is seated. */
const cards = computed(() => {
  const waiting = rows.value.filter((one) => one.state === 'waits')
  if (waiting.length) return waiting.map((one) => ({ name: one.taster, order: one.order, short: one.short }))
  return table.value?.next_order.length ? [{ name: '', order: table.value.next_order, short: false }] : []
})
const scales = computed(() => {
  const all = table.value?.scales ?? []
  const overall = table.value?.kind === 'scores' && !all.some((one) => one.name === 'overall')
  return overall ? [{ name: 'overall', low: 1, high: 9 }, ...all] : all
})
/** One marker a plate that is carried: each code as often as it is served, six at least to choose from. */
const markers = computed(() => {
  const served = rows.value.flatMap((one) => one.order)
  return served.length ? [...served].sort() : (table.value?.codes ?? [])
})
</script>

<template>
  <main v-if="table" class="prints">
    <header class="station-head screen">
      <div>
        <h1>Print</h1>
        <p class="muted">{{ table.cook }}. Nothing here tells which plate is which.</p>
      </div>
      <span class="tools">
        <Choice
          v-model="what"
          label="What"
          hidden-label
          :options="[
            { value: 'markers', text: 'Plate markers' },
            { value: 'plan', text: 'Serving plan' },
            { value: 'cards', text: 'Paper cards' },
          ]"
        />
        <Choice
          v-model="paper"
          label="Paper"
          hidden-label
          :options="[
            { value: 'A4', text: 'A4' },
            { value: 'letter', text: 'US Letter' },
          ]"
        />
        <v-btn :to="`/table/${id}`">To the table</v-btn>
        <v-btn class="solid" @click="print">Print</v-btn>
      </span>
    </header>
    <section v-if="what === 'markers'" class="sheet markers" aria-label="Plate markers">
      <div v-for="(code, at) in markers" :key="at"><NumberedPlate :code="code" :size="160" /></div>
    </section>
    <section v-else-if="what === 'plan'" class="sheet plan" aria-label="Serving plan">
      <h2>{{ table.cook }}: who is served what, in which order</h2>
      <p>{{ table.balance.says }} A sip of {{ table.sip }} before each plate.</p>
      <table>
        <tbody>
          <tr v-for="one in rows" :key="one.taster_id">
            <th scope="row">{{ one.taster }}<small v-if="one.short"> (child’s card)</small></th>
            <td v-for="code in one.order" :key="code">{{ code }}</td>
            <td class="box" aria-hidden="true">☐ card in</td>
          </tr>
        </tbody>
      </table>
      <p v-if="!rows.length">Say at the table who tastes; then everybody has an order of their own here.</p>
    </section>
    <section v-else class="cards" aria-label="Paper cards">
      <article v-for="card in cards" :key="card.name" class="sheet card">
        <h2>{{ card.name || 'Name: ______________________' }}</h2>
        <p>Taste {{ card.order.join(', then ') }}, with a sip of {{ table.sip }} before each.</p>
        <template v-if="card.short">
          <p class="asks">How was it? Put a ring round a face.</p>
          <p v-for="code in card.order" :key="code" class="faces">
            <b>{{ code }}</b> <span>yum</span> <span>so-so</span> <span>no</span>
          </p>
        </template>
        <template v-else>
          <p class="asks">{{ table.asks }}</p>
          <p v-if="table.kind === 'ranking'" class="blanks">
            <span v-for="(code, at) in card.order" :key="code">{{ at + 1 }}. ______</span>
          </p>
          <p v-else-if="table.kind !== 'scores'" class="blanks">
            <span v-for="code in card.order" :key="code" class="ring">{{ code }}</span>
            <span v-if="table.kind === 'preference'" class="ring">no preference</span>
          </p>
          <table>
            <thead>
              <tr>
                <td />
                <th v-for="code in card.order" :key="code" scope="col">{{ code }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="scale in scales" :key="scale.name">
                <th scope="row">
                  {{ askedAs(scale.name) }}
                  <small>{{
                    isRight(scale.name)
                      ? `1 ${RIGHT_WORDS[0]}, 3 just right, 5 ${RIGHT_WORDS[4]}`
                      : `1 ${endsOf(scale.name)[0]}, 9 ${endsOf(scale.name)[1]}`
                  }}</small>
                </th>
                <td v-for="code in card.order" :key="code" class="blank" />
              </tr>
              <tr>
                <th scope="row">Words</th>
                <td v-for="code in card.order" :key="code" class="blank tall" />
              </tr>
            </tbody>
          </table>
          <p v-if="table.guess" class="asks">{{ table.guess }} ______</p>
        </template>
      </article>
    </section>
    <p class="muted screen">{{ longDay(new Date().toISOString()) }}</p>
  </main>
  <main v-else><h1>Print</h1></main>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
  align-items: center;
}
.sheet {
  background: #fff;
  color: #14181f;
  border: 1.5px solid var(--line-strong);
  padding: var(--s-24);
  margin: var(--s-12) 0;
  max-width: 820px;
}
.markers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: var(--s-16);
  justify-items: center;
  --plate: #fff;
  --tint: #eaeef6;
  --rim: #2346a0;
  --line: #d8deea;
  --ink: #14181f;
}
.sheet table {
  border-collapse: collapse;
  width: 100%;
}
.sheet th,
.sheet td {
  border: 1px solid #9aa6c0;
  padding: var(--s-6) var(--s-10);
  text-align: left;
}
.plan td {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h3);
  text-align: center;
}
.plan .box {
  font: inherit;
  border: 0;
}
.card th small {
  display: block;
  font-weight: 400;
}
.card thead th {
  text-align: center;
  font-size: var(--t-h3);
}
.blank {
  min-width: 70px;
  height: 34px;
}
.tall {
  height: 64px;
}
.asks {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h3);
  margin: var(--s-12) 0 var(--s-6);
}
.blanks,
.faces {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-12) var(--s-32);
  font-size: var(--t-h3);
}
.ring {
  border: 1px solid #9aa6c0;
  border-radius: 999px;
  padding: var(--s-4) var(--s-14);
}
@media print {
  .screen {
    display: none;
  }
  .sheet {
    border: 0;
    padding: 0;
    margin: 0;
    max-width: none;
  }
  .card {
    break-after: page;
  }
  .markers > div {
    break-inside: avoid;
    padding: 6mm;
  }
}
</style>
