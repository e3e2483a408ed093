<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, useTemplateRef } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { say } from '../kit/notice'
import { inParts } from './parts'
import { useThisFire } from './useFire'

/** Readings as a file, out and in; thinned where the household asks for it. */
const { fire, id, reload } = useThisFire()
const queries = useQueryClient()
const input = useTemplateRef<HTMLInputElement>('input')
const busy = ref('')
const brought = ref<Schemas['BroughtInOut'] | null>(null)
const wrong = ref('')
const over = computed(() => !!fire.value?.ended_at)
const asked = ref(false)
const { data: thinned } = useQuery({
  queryKey: ['fire', 'thinned', id],
  queryFn: () => call(api.GET('/api/fire/{cook_id}/thinned', { params: { path: { cook_id: id.value ?? '' } } })),
  enabled: computed(() => asked.value && !!id.value),
})

async function bring() {
  const file = input.value?.files?.[0]
  const of = id.value
  if (!file || !of) return
  wrong.value = ''
  const sum: Schemas['BroughtInOut'] = { taken: 0, known: 0, outside: 0, faults: [] }
  try {
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    const parts = inParts(await file.text())
    for (const [at, part] of parts.entries()) {
      busy.value = parts.length > 1 ? `Part ${at + 1} of ${parts.length} …` : 'Reading …'
      const told = await call(
        api.POST('/api/fire/{cook_id}/readings', { params: { path: { cook_id: of } }, body: { ...part, zone } }),
      )
      sum.taken += told.taken
      sum.known += told.known
      sum.outside += told.outside
      sum.faults = [...sum.faults, ...told.faults]
    }
    brought.value = sum
  } catch (failure) {
    wrong.value = sentenceOf(failure)
  }
  busy.value = ''
  if (input.value) input.value.value = ''
  await reload()
}
async function thin() {
  const of = id.value
  if (!of) return
  try {
    const left = await call(api.POST('/api/fire/{cook_id}/thin', { params: { path: { cook_id: of } } }))
    say(`${left.readings} readings stay; the book was copied into its backups first.`)
    asked.value = false
    await queries.invalidateQueries({ queryKey: ['fire', 'thinned'] })
    await reload()
  } catch (failure) {
    say(sentenceOf(failure))
  }
}
</script>

<template>
  <section class="plate readings" aria-label="Readings">
    <h2>Readings</h2>
    <p>
      <a class="link" :href="`/api/fire/${id}/readings.csv`" download>Take all out as CSV</a>
      <button type="button" class="link" :disabled="!!busy" @click="input?.click()">Bring a CSV in</button>
      <input ref="input" type="file" accept=".csv,text/csv,text/plain" hidden @change="bring" />
      <button v-if="over" type="button" class="link" :aria-expanded="asked" @click="asked = !asked">Thin them</button>
    </p>
    <p v-if="busy" class="muted" role="status">{{ busy }}</p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <div v-if="brought" role="status">
      <p>
        {{ brought.taken }} readings came in<template v-if="brought.known">, {{ brought.known }} were known</template
        ><template v-if="brought.outside">, {{ brought.outside }} are not of this cook’s time</template>.
      </p>
      <ul v-if="brought.faults.length" class="faults">
        <li v-for="one in brought.faults" :key="`${one.line}.${one.column}`">
          <b>Line {{ one.line }}, column {{ one.column }}:</b> {{ one.sentence }}
        </li>
      </ul>
    </div>
    <div v-if="asked && thinned">
      <p v-if="thinned.why_not">{{ thinned.why_not }}</p>
      <p v-else-if="thinned.stay === thinned.readings">All {{ thinned.readings }} are as few as they can be.</p>
      <p v-else>
        Of {{ thinned.readings }} readings {{ thinned.stay }} would stay: of each minute the lowest and the highest, and
        all round an event. The rest is gone then, but for the backup that is made first.
        <button type="button" class="link" @click="thin">Thin to {{ thinned.stay }}</button>
      </p>
    </div>
    <p class="muted">A file names its columns: at, measured, piece, probe, celsius or fahrenheit.</p>
  </section>
</template>

<style scoped>
.readings {
  padding: var(--s-14) var(--s-20);
  font-size: var(--t-s);
}
p {
  margin: var(--s-6) 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-14);
  align-items: center;
}
.faults {
  margin: var(--s-6) 0 0;
  padding-left: var(--s-16);
}
.wrong {
  color: var(--stop);
}
</style>
