<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import { dayAndTime, longDay, time } from '../kit/units'
import BuyList from './BuyList.vue'
import { zone } from './useDay'

/** The day on one page: steps by the hour, what to buy, what to mix, the clocks. Nothing of it tells on a trial. */
const props = defineProps<{ id: string }>()
const { show } = usePreferences()
const { data: sheet, error } = useQuery({
  queryKey: computed(() => ['day', props.id, 'sheet']),
  queryFn: () =>
    call(api.GET('/api/cooks/{cook_id}/sheet', { params: { path: { cook_id: props.id }, query: { zone } } })),
})
const days = computed(() => {
  const found = new Map<string, Schemas['DayStep'][]>()
  for (const step of sheet.value?.day.steps ?? []) {
    const day = longDay(step.begins_at)
    found.set(day, [...(found.get(day) ?? []), step])
  }
  return [...found]
})
const whose = (letter: string) => sheet.value?.names[letter] ?? ''
const print = () => window.print()
</script>

<template>
  <main class="sheet">
    <p v-if="error" role="status">{{ sentenceOf(error) }}</p>
    <template v-if="sheet">
      <header class="station-head">
        <div>
          <h1>{{ sheet.name }}</h1>
          <p>{{ longDay(sheet.day.serve_at) }} {{ time(sheet.day.serve_at) }} at the table ({{ sheet.zone }})</p>
        </div>
        <span class="tools">
          <router-link :to="`/day/${id}`">Back to the day</router-link>
          <v-btn class="solid" @click="print">Print</v-btn>
        </span>
      </header>
      <p v-if="sheet.day.light_at" class="light">
        {{ sheet.day.lights }} <b>{{ dayAndTime(sheet.day.light_at) }}</b>
      </p>
      <p v-if="sheet.hidden" class="muted note">Pieces go by letter: a tasting still hides which is which.</p>
      <div class="plate columns">
        <section v-for="[name, steps] in days" :key="name" class="hours">
          <h2>{{ name }}</h2>
          <ol>
            <li v-for="step in steps" :key="`${step.letter} ${step.key} ${step.begins_at}`">
              <i aria-hidden="true" /><b>{{ time(step.begins_at) }}</b>
              <span>{{ whose(step.letter) ? `${whose(step.letter)}: ` : '' }}{{ show.sentence(step.says) }}</span>
            </li>
          </ol>
        </section>
        <section v-if="sheet.meat.length || sheet.buy.length">
          <h2>Buy</h2>
          <BuyList :sheet="sheet" />
        </section>
        <section v-if="sheet.mix.length">
          <h2>Mix</h2>
          <ul>
            <li v-for="one in sheet.mix" :key="one.name">
              <b>{{ one.name }}, {{ show.dose(one.grams) }}</b
              >:
              <template v-for="(line, n) in one.lines" :key="line.name"
                >{{ n ? ', ' : '' }}{{ line.name }} {{ show.dose(line.grams) }}</template
              ><template v-if="one.aside_g"
                >. Set {{ show.dose(one.aside_g) }} aside before it touches raw meat</template
              ><template v-if="one.in_jars_g">. Jars hold {{ show.dose(one.in_jars_g) }} besides</template>
            </li>
          </ul>
        </section>
        <section v-if="sheet.day.clocks.length">
          <h2>Clocks</h2>
          <ul>
            <li v-for="clock in sheet.day.clocks" :key="`${clock.letter} ${clock.kind} ${clock.begins_at}`">
              <b>{{ dayAndTime(clock.begins_at) }}–{{ time(clock.ends_at) }}</b>
              {{ whose(clock.letter) ? `${whose(clock.letter)}: ` : '' }}{{ show.sentence(clock.says) }}
            </li>
          </ul>
        </section>
      </div>
    </template>
  </main>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.light {
  font-family: var(--display);
  font-size: var(--t-l);
  margin: 0 0 var(--s-10);
}
.note {
  margin: 0 0 var(--s-10);
}
.columns {
  columns: 2 380px;
  column-gap: var(--s-32);
  padding: var(--s-16) var(--s-20);
}
section {
  margin-bottom: var(--s-14);
}
h2 {
  break-after: avoid;
}
ol li {
  display: grid;
  grid-template-columns: 14px 44px minmax(0, 1fr);
  gap: var(--s-6);
}
ol i {
  width: 12px;
  height: 12px;
  margin-top: 4px;
  border: 1px solid var(--line-strong);
  border-radius: 3px;
}
@media print {
  .tools {
    display: none;
  }
  .columns {
    columns: 2;
    column-gap: 7mm;
    padding: 0;
    border: 0;
    background: none;
    box-shadow: none;
  }
  h1 {
    font-size: 15pt;
  }
  h2 {
    font-size: 10pt;
  }
  .light {
    font-size: 12pt;
    margin: 0 0 2mm;
  }
  section {
    margin-bottom: 2.5mm;
  }
}
</style>
<style>
@media print {
  @page {
    margin: 11mm;
  }
}
</style>
