<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { usePreferences } from '../app/preferences'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import { duration } from '../kit/units'
import OwnForm from './OwnForm.vue'
import { useOwnForm } from './useOwnForm'

/** A cooker of one's own: its kind, and what of it is otherwise; what is left empty is as usual for the kind. */
type Doc = Required<Schemas['CookerDocument']>
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ own?: Schemas['CookerOut'] }>()
const emit = defineEmits<{ made: [key: string] }>()
const queries = useQueryClient()
const { show } = usePreferences()

const blank = (): Doc => ({
  name: '', kind: '', grate: '', range: '', hotter: '', spots: '', recovers: '', damp: 'usual', ready: '', fuel: '',
}) // prettier-ignore
const { doc, errors, reads, keeping } = useOwnForm<Doc, Schemas['CookerReadOut']>({
  open,
  blank,
  own: () => props.own,
  read: (body, signal) => call(api.POST('/api/shelf/own-cookers/read', { body, signal })),
})
const { data: kinds } = useQuery({
  queryKey: ['cooker kinds'],
  queryFn: () => call(api.GET('/api/shelf/cooker-kinds')),
  staleTime: Infinity,
})
const choices = computed(() => (kinds.value ?? []).map((one) => ({ value: one.kind, title: one.says })))
const usual = computed(() => kinds.value?.find((one) => one.kind === doc.kind)?.usual)
const span = computed(() =>
  usual.value ? `${show.value.temperature(usual.value.low_c)} to ${show.value.temperature(usual.value.high_c)}` : '',
)
const damps: { value: Doc['damp']; text: string }[] = [
  { value: 'dry', text: 'dry' },
  { value: 'usual', text: 'as usual' },
  { value: 'damp', text: 'damp' },
]
const keep = keeping(async () => {
  const kept = props.own
    ? await call(
        api.PUT('/api/shelf/own-cookers/{own_id}', {
          params: { path: { own_id: props.own.id } },
          body: { ...doc, version: props.own.version },
        }),
      )
    : await call(api.POST('/api/shelf/own-cookers', { body: { ...doc } }))
  await refresh(queries, ['own cookers'], ['heat of cut'])
  emit('made', kept.key)
})
</script>

<template>
  <OwnForm v-model="open" label="A cooker of your own" :changing="own?.name" keeps="Keep it" @keep="keep">
    <Field v-model="doc.name" label="Its name" placeholder="The dented kettle" :error="errors.name" />
    <Select v-model="doc.kind" label="What kind it is" :options="choices" :error="errors.kind" />
    <template v-if="usual">
      <p class="muted">What is left empty is as usual for its kind.</p>
      <div class="fields">
        <Field
          v-model="doc.grate"
          label="Grate"
          placeholder="57 cm, or 45 x 60 cm"
          :hint="`usually ${show.area(usual.grate_cm2)}`"
          :error="errors.grate"
        />
        <Field v-model="doc.range" label="Goes from and to" :placeholder="span" :error="errors.range" />
        <Field
          v-model="doc.hotter"
          label="Its hot side is hotter by"
          placeholder="25 °C"
          :hint="`usually ${show.difference(usual.near_k)}`"
          :error="errors.hotter"
        />
        <Field
          v-model="doc.spots"
          label="Measured over its grate"
          placeholder="108, 115 and 131 °C"
          :error="errors.spots"
        />
        <Field
          v-model="doc.ready"
          label="Ready after"
          :placeholder="duration(usual.ready_s)"
          :hint="`ready when ${usual.ready}`"
          :error="errors.ready"
        />
        <Field
          v-model="doc.recovers"
          label="Its heat is back after"
          :placeholder="duration(usual.recovers_s)"
          hint="once it was opened"
          :error="errors.recovers"
        />
        <Field
          v-model="doc.fuel"
          :label="`Burns, ${usual.fuel_unit}`"
          :placeholder="String(usual.fuel)"
          :error="errors.fuel"
        />
      </div>
      <Choice v-model="doc.damp" label="The air in it" :options="damps" :error="errors.damp" />
    </template>
    <template #reads
      ><template v-if="reads && usual">
        <b>{{ show.area(reads.grate_cm2) }}</b> of grate, {{ show.temperature(reads.low_c) }} to
        {{ show.temperature(reads.high_c) }}, its hot side {{ show.difference(reads.near_k) }} hotter, ready after
        {{ duration(reads.ready_s) }}.
        <template v-if="reads.uneven_k > 0.5"
          >Over its grate the heat is uneven by {{ show.difference(reads.uneven_k) }}, which widens the doubt.</template
        >
      </template></template
    >
  </OwnForm>
</template>

<style scoped>
p {
  margin: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: var(--s-10);
  align-items: start;
}
</style>
