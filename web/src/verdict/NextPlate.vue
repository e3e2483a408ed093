<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useChange } from '../api/change'
import { api, call, sentenceOf } from '../api/client'
import { say } from '../kit/notice'
import { ALL, counted, type Asked } from './useQuestion'

/** What to cook next: of what can be cooked, the trial that most likely settles its cut, and one tap to set it up. */
const props = defineProps<{
  asked: Asked
  question: { kind: 'way' | 'blend' | 'revision'; first: string; second: string }
}>()
const router = useRouter()
const client = useQueryClient()
const { data, error } = useQuery({
  queryKey: computed(() => ['verdicts', 'next', props.asked]),
  queryFn: () => call(api.GET('/api/verdicts/next', { params: { query: props.asked } })),
})
const why = ref(false)
const all = ref(false)
const ideas = computed(() => data.value?.ideas ?? [])
const first = computed(() => ideas.value[0])
const grains = (chance: number) => Math.round(chance * 20)
const set = useChange('cook', async (cut: string) => {
  const body = { question: { ...ALL, ...props.asked, ...props.question }, cut, tasters: data.value?.tasters ?? [] }
  const made = await call(api.POST('/api/verdicts/next', { body }))
  await client.invalidateQueries()
  say([`${made.name} is set up for next Saturday.`, ...made.says].join(' '))
  await router.push(`/table/${made.trial_id}/design`)
})
</script>

<template>
  <section class="plate next" aria-labelledby="try-next">
    <h2 id="try-next">Try next</h2>
    <p v-if="error" class="says" role="alert">{{ sentenceOf(error) }}</p>
    <p v-else-if="data?.says">{{ data.says }}</p>
    <template v-if="first">
      <p>
        <b>{{ first.cut_name }}, two alike, salt made equal.</b> {{ first.trial.says[0] }}
      </p>
      <p class="act">
        <v-btn class="solid" :loading="set.busy.value" @click="set(first.trial.cut)">Set it up</v-btn>
        <button type="button" class="link" :aria-expanded="why" @click="why = !why">Why this one</button>
      </p>
      <div v-if="why" class="why">
        <p v-for="sentence in first.trial.says.slice(1)" :key="sentence">{{ sentence }}</p>
        <table>
          <caption>
            How likely it is settled, in grains of twenty
          </caption>
          <thead>
            <tr>
              <th scope="col">Tasters</th>
              <th v-for="n in 4" :key="n" scope="col">{{ counted(n, 'evening') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in first.trial.planned" :key="row.tasters">
              <th scope="row">{{ row.tasters }}</th>
              <td v-for="(chance, n) in row.chances" :key="n">{{ grains(chance) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-for="one in first.stock" :key="one.name">{{ one.name }}: {{ one.says }}.</p>
        <p>Who would taste: {{ data?.tasters.join(', ') }}.</p>
      </div>
      <button v-if="ideas.length > 1" type="button" class="link" :aria-expanded="all" @click="all = !all">
        The other {{ ideas.length - 1 }}
      </button>
      <ul v-if="all" class="rows">
        <li v-for="idea in ideas.slice(1)" :key="idea.trial.cut">
          <span
            ><b>{{ idea.cut_name }}</b
            ><span class="muted">{{
              idea.trial.known ? ' known already' : ` ${grains(idea.trial.settles)} of 20`
            }}</span></span
          >
          <button type="button" class="link" @click="set(idea.trial.cut)">
            Set up<span class="sr-only"> {{ idea.cut_name }}</span>
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.next {
  padding: var(--s-16) var(--s-20);
}
p {
  margin: var(--s-8) 0 0;
}
.act {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-16);
  align-items: center;
  margin-bottom: var(--s-8);
}
.why {
  font-size: var(--t-m);
  margin-bottom: var(--s-10);
}
table {
  width: 100%;
  margin-top: var(--s-10);
  border-collapse: collapse;
  font-size: var(--t-s);
}
caption {
  text-align: left;
  color: var(--muted);
  padding-bottom: var(--s-4);
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: var(--s-4) var(--s-6) var(--s-4) 0;
  border-top: 1px solid var(--line);
}
.says {
  color: var(--stop);
}
</style>
