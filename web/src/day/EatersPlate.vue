<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { api, byField, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { keep, refresh } from '../api/kept'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import Tick from '../kit/Tick.vue'
import { say } from '../kit/notice'
import { sure } from '../kit/sure'

/** Who eats: people of the household and guests by nickname, what they avoid, and what of this cook leaves them out. */
type Table = Schemas['EatersOut']
type Taster = Schemas['TasterOut']
const props = defineProps<{ id: string; names: Record<string, string> }>()
const queries = useQueryClient()
const key = computed(() => ['eaters', props.id])
const { data: table, error } = useQuery({
  queryKey: key,
  queryFn: () => call(api.GET('/api/cooks/{cook_id}/table', { params: { path: { cook_id: props.id } } })),
})
const form = reactive({ nickname: '', guest: false, avoids: '', appetite: 'usual' as Taster['appetite'] })
const changing = ref<Taster | null>(null)
const open = ref(false)
const errors = ref<Record<string, string>>({})
const appetites = (['light', 'usual', 'hearty'] as const).map((value) => ({ value, text: value }))

function show(taster: Taster | null) {
  changing.value = taster
  errors.value = {}
  Object.assign(form, {
    nickname: taster?.nickname ?? '',
    guest: taster?.guest ?? false,
    avoids: taster?.avoids.join(', ') ?? '',
    appetite: taster?.appetite ?? 'usual',
  })
  open.value = true
}
async function seat(seats: string[]) {
  const of = sure(table.value)
  try {
    const told = await call(
      api.PUT('/api/cooks/{cook_id}/table', {
        params: { path: { cook_id: of.id } },
        body: { version: of.version, seats },
      }),
    )
    await keep<Table>(queries, key.value, told)
  } catch (failure) {
    say(
      failure instanceof Refusal && failure.problem.status === 409
        ? 'This cook was changed in another window; say again who eats.'
        : sentenceOf(failure),
    )
  }
  await refresh(queries, ['eaters'], ['day'], ['totals'], ['home'])
}
const seated = computed(() => new Set(table.value?.seats ?? []))
function toggle(taster: Taster) {
  const others = [...seated.value].filter((id) => id !== taster.id)
  void seat(seated.value.has(taster.id) ? others : [...others, taster.id])
}
async function keepTaster() {
  const body = {
    ...form,
    avoids: form.avoids
      .split(/[,;]/)
      .map((word) => word.trim())
      .filter(Boolean),
  }
  try {
    const was = changing.value
    const kept = was
      ? await call(
          api.PUT('/api/cooks/tasters/{taster_id}', {
            params: { path: { taster_id: was.id } },
            body: { ...body, version: was.version },
          }),
        )
      : await call(api.POST('/api/cooks/tasters', { body }))
    open.value = false
    if (was) await refresh(queries, ['eaters'])
    else await seat([...seated.value, kept.id])
  } catch (failure) {
    errors.value = byField(failure)
    if (!Object.keys(errors.value).length) errors.value = { nickname: sentenceOf(failure) }
  }
}
async function remove(taster: Taster) {
  const path = { params: { path: { taster_id: taster.id } } }
  await call(api.POST('/api/cooks/tasters/{taster_id}/delete', path))
  open.value = false
  await refresh(queries, ['eaters'])
  say(`${taster.nickname} is taken out.`, async () => {
    await call(api.POST('/api/cooks/tasters/{taster_id}/restore', path))
    await refresh(queries, ['eaters'])
  })
}
const told = (one: Schemas['LeftOut']) => {
  const what = props.names[one.letter] ?? one.letter
  const why = one.why.length ? `${what} leaves ${one.nickname} out: ${one.why.join(', ')}.` : ''
  const asked = one.asked.length
    ? ` Whether ${what} holds ${one.asked.join(' or ')} no table says: look for ${one.nickname} yourself.`
    : ''
  return `${why}${asked}`.trim()
}
</script>

<template>
  <section class="plate eaters" aria-label="Who eats">
    <h2>Who eats</h2>
    <p v-if="error" role="status">{{ sentenceOf(error) }}</p>
    <template v-if="table">
      <ul v-if="table.tasters.length" class="people">
        <li v-for="taster in table.tasters" :key="taster.id">
          <Tick :model-value="seated.has(taster.id)" @update:model-value="toggle(taster)">{{ taster.nickname }}</Tick>
          <button type="button" class="link" @click="show(taster)">
            <span class="sr-only">{{ taster.nickname }}: </span
            >{{ taster.avoids.length ? `no ${taster.avoids.join(', no ')}` : 'eats all' }}
          </button>
        </li>
      </ul>
      <p v-if="seated.size" class="muted">
        {{ seated.size }} at the table, {{ table.portions.toFixed(1) }} usual portions: what to buy goes by that.
      </p>
      <p v-for="one in table.left_out" :key="one.nickname + one.letter" :class="{ out: one.why.length }">
        {{ told(one) }}
      </p>
      <div v-if="open" class="form">
        <Field v-model="form.nickname" label="Nickname" placeholder="Kingfisher" :error="errors.nickname" autofocus />
        <Field
          v-model="form.avoids"
          label="Does not eat"
          placeholder="nuts, pork"
          :hint="`Checked: ${table.avoids.join(', ')}. Other words are kept for you to look at.`"
          :error="errors.avoids"
        />
        <Choice v-model="form.appetite" label="Appetite" :options="appetites" />
        <Tick v-model="form.guest">A guest</Tick>
        <div class="acts">
          <v-btn class="solid" @click="keepTaster">Keep</v-btn>
          <v-btn class="quiet" @click="open = false">Leave it</v-btn>
          <v-btn v-if="changing" class="quiet" @click="remove(changing)">Take out</v-btn>
        </div>
      </div>
      <v-btn v-else class="quiet" @click="show(null)">Add somebody</v-btn>
    </template>
  </section>
</template>

<style scoped>
.eaters {
  padding: var(--s-16) var(--s-20);
}
.people {
  list-style: none;
  padding: 0;
  margin: var(--s-4) 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(128px, 1fr));
  gap: 0 var(--s-12);
}
.people .link {
  font-size: var(--t-xs);
  padding-left: 30px;
  text-align: left;
}
p {
  margin: var(--s-4) 0;
  font-size: var(--t-s);
}
.out {
  color: var(--caution);
}
.form {
  display: grid;
  gap: var(--s-10);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
}
</style>
