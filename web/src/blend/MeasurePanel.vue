<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, Refusal } from '../api/client'
import { useChange } from '../api/change'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { useQuestion } from '../api/question'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import { benchHere } from './useBlend'
import { sure } from '../kit/sure'

/** From the ratio to the bowl: what spoons make of it, the batch they suit best, the jar, and the weigh-out. */
const bench = benchHere()
const props = defineProps<{ id: string }>()
const { show, spoons: drawer } = usePreferences()
const router = useRouter()
const { reading, doc } = bench

const low = ref('')
const high = ref('')
const spoons = (range: { low: string; high: string }, signal: AbortSignal) =>
  call(api.POST('/api/blends/spoons', { body: { ...bench.body(), ...range }, signal }))
const asIs = useQuestion({ after: 120, ask: (signal) => spoons({ low: '', high: '' }, signal) })
// what is wrong stands at the field it is wrong in
const found = computed(() => (asIs.failure.value ? null : asIs.answer.value))
watch([reading, drawer], () => asIs.ask(), { immediate: true })

const sought = useQuestion({ ask: (signal) => spoons({ low: low.value, high: high.value }, signal) })
const best = computed(() => (sought.failure.value ? null : sought.answer.value))
const errors = computed<Record<string, string>>(() =>
  sought.failure.value instanceof Refusal ? sought.errors.value : { low: sought.says.value },
)
watch(reading, sought.clear)
const seek = () => void sought.ask()
function take() {
  sure(doc.value).batch = sure(best.value).batch
}
const off = (error: number) =>
  Math.abs(error) < 0.0005 ? 'exact' : `${error > 0 ? '+' : '−'}${percent(Math.abs(error) * 100)}`
const worst = computed(
  () => [...(found.value?.lines ?? [])].sort((a, b) => Math.abs(b.spoons.error) - Math.abs(a.spoons.error))[0],
)

const { data: batches } = useQuery({ queryKey: ['batches'], queryFn: () => call(api.GET('/api/batches')) })
const open = computed(() => batches.value?.find((batch) => batch.blend === props.id && batch.state === 'weighing'))
const resolution = ref<'0.1' | '1'>('0.1')
const weigh = useChange('batches', async () => {
  await bench.autosave.flush()
  if (bench.autosave.state.value !== 'saved') return say('Mend what is not saved yet first; nothing is lost.')
  const body = {
    blend: props.id,
    version: sure(bench.stored.value).version,
    wanted: sure(doc.value).batch,
    resolution_g: Number(resolution.value),
  }
  const batch = await call(api.POST('/api/batches', { body }))
  await router.push(`/blend/weigh/${batch.id}`)
})
</script>

<template>
  <section class="measure" aria-label="Measure it">
    <div class="weigh answer">
      <p class="big">{{ reading ? show.mass(reading.batch.value) : '–' }}</p>
      <p v-if="reading">
        about {{ show.volume(reading.volume.value) }}, fits
        {{ reading.jar.count > 1 ? `${reading.jar.count} jars` : 'a jar' }} of {{ show.volume(reading.jar.jar_ml) }}:
        <Why :figure="reading.jar.full" of="How full the jar gets">{{ reading.jar.full.value.toFixed(0) }} % full</Why>
      </p>
      <router-link v-if="open" :to="`/blend/weigh/${open.id}`" class="v-btn on-dark link">Go on weighing</router-link>
      <v-btn v-else class="on-dark" :disabled="!reading" @click="weigh">Weigh it out</v-btn>
    </div>
    <Choice
      v-model="resolution"
      label="Your scale shows"
      :options="[
        { value: '0.1', text: 'tenths of a gram' },
        { value: '1', text: 'whole grams' },
      ]"
    />
    <template v-if="found">
      <h2>By spoons</h2>
      <p v-if="worst" class="muted">
        {{ found.count }} spoonfuls. Rounding is worst at {{ worst.name }}, {{ off(worst.spoons.error) }}; salt
        <Why :figure="found.salt_after" of="Salt by these spoons"
          >{{ percent(found.salt_before.value) }} → {{ percent(found.salt_after.value) }}</Why
        >.
      </p>
      <table>
        <thead>
          <tr class="muted">
            <th>Level</th>
            <th class="n">Off</th>
            <th class="n">Share</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(line, at) in found.lines" :key="at">
            <td>
              <Why :figure="line.spoons.volume" :of="`Spoons of ${line.name}`"
                ><b>{{ line.spoons.text }}</b></Why
              >
              <small>{{ line.name }}</small>
            </td>
            <td class="n">{{ off(line.spoons.error) }}</td>
            <td class="n">{{ percent(line.share_after) }}</td>
          </tr>
        </tbody>
      </table>
      <h2>A batch that suits the spoons</h2>
      <form class="seek" @submit.prevent="seek">
        <Field v-model="low" label="From" placeholder="60 g" :error="errors.low" />
        <Field v-model="high" label="to" placeholder="150 g" :error="errors.high" />
        <v-btn type="submit" :disabled="!low.trim() || !high.trim()">Find it</v-btn>
      </form>
      <div v-if="best" class="best" role="status">
        <p>
          <b>{{ show.mass(best.batch_g) }}</b>: {{ best.count }} spoonfuls, no line off by more than
          {{ percent(best.worst * 100) }}, salt
          {{ percent(best.salt_after.value) }}
        </p>
        <v-btn class="solid" @click="take">Take it</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped>
.measure {
  display: grid;
  gap: var(--s-12);
}
.weigh {
  padding: var(--s-16) var(--s-24) var(--s-20);
}
.weigh p {
  margin: 0 0 var(--s-10);
  color: var(--on-deep-soft);
  font-size: var(--t-s);
}
.weigh .big {
  font-size: var(--t-big);
  line-height: 1.1;
  margin-bottom: var(--s-2);
  color: #fff;
}
.link {
  display: inline-flex;
  align-items: center;
  padding: 0 var(--s-16);
}
p {
  margin: 0;
}
.muted {
  font-size: var(--t-s);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  font-weight: 400;
  font-size: var(--t-xs);
  text-align: left;
}
td {
  border-top: 1px solid var(--line);
  padding: var(--s-4) 0;
  vertical-align: top;
}
.n {
  text-align: right;
  padding-left: var(--s-8);
  white-space: nowrap;
}
td :deep(.why) {
  white-space: normal;
  text-align: left;
}
small {
  display: block;
  font-size: var(--t-xs);
  color: var(--muted);
  line-height: 1.2;
}
.seek {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: var(--s-10);
  align-items: end;
}
.best {
  display: flex;
  gap: var(--s-12);
  align-items: center;
  justify-content: space-between;
}
</style>
