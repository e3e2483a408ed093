<script setup lang="ts">
import { computed, nextTick, ref, toRef } from 'vue'
import { useChange } from '../api/change'
import { api, byField, call, sentenceOf, type Schemas } from '../api/client'
import { useTable, type Table } from './useTable'
import CardsFile from './CardsFile.vue'
import { asTyped, atCells, columnsOf } from './paper'

/** Paper cards typed in by keyboard alone: a name, then a number after the other, Enter from field to field. */
const props = defineProps<{ id: string }>()
const { table, show } = useTable(toRef(props, 'id'))
const taster = ref('')
const given = ref<Schemas['ServingOut'] | null>(null)
const cells = ref<Record<string, string>>({})
const errors = ref<Record<string, string>>({})
const form = ref<HTMLFormElement>()
const done = ref<string[]>([])
const columns = computed(() => (table.value ? columnsOf(table.value) : []))
const pick = computed(() => ({ preference: 'Prefers, by its number, or 0 for none', triangle: 'The odd one, by its number', ranking: '', scores: '' })[table.value?.kind ?? 'scores']) // prettier-ignore

function focus(at: number) {
  void nextTick(() => form.value?.querySelectorAll<HTMLInputElement>('input[data-cell]')[at]?.focus())
}
const begin = useChange(
  'trial',
  async () => {
    errors.value = {}
    if (!table.value || !taster.value.trim()) return
    const params = { path: { trial_id: props.id } }
    const told = await call(
      api.POST('/api/trials/{trial_id}/seat', { params, body: { taster: taster.value, short: false } }),
    )
    given.value = told.servings.find((one) => one.taster.toLowerCase() === taster.value.trim().toLowerCase()) ?? null
    cells.value = {}
    await show(told)
    if (given.value?.state === 'in') {
      errors.value = { taster: `${given.value.taster} has a card already.` }
      given.value = null
      return
    }
    focus(1)
  },
  { refused: (failure) => (errors.value = byField(failure)) },
)
let places: string[] = []
const hand = useChange(
  'trial',
  async () => {
    if (!given.value || !table.value) return
    errors.value = {}
    if (table.value.kind === 'preference' && !cells.value.pick?.trim()) {
      errors.value = { pick: 'Type the number of the plate, or 0 for no preference.' }
      return
    }
    const typed = asTyped(table.value, given.value, cells.value)
    places = typed.places
    const params = { path: { trial_id: props.id } }
    const told: Table = await call(api.POST('/api/trials/{trial_id}/cards', { params, body: typed.card }))
    done.value = [given.value.taster, ...done.value]
    given.value = null
    taster.value = ''
    await show(told)
    focus(0)
  },
  {
    refused: (failure) => {
      errors.value = atCells(byField(failure), places)
      if (!Object.keys(errors.value).length) errors.value = { all: sentenceOf(failure) }
    },
  },
)
/** Enter goes to the next field, and hands in at the last. */
function enter(event: KeyboardEvent) {
  const all = [...(form.value?.querySelectorAll<HTMLInputElement>('input[data-cell]') ?? [])]
  const at = all.indexOf(event.target as HTMLInputElement)
  if (at === 0 && !given.value) return void begin()
  if (at < all.length - 1) all[at + 1]?.focus()
  else void hand()
}
const wrong = computed(() => Object.entries(errors.value).filter(([field]) => !['taster', 'pick'].includes(field)).map(([, said]) => said)) // prettier-ignore
</script>

<template>
  <main v-if="table">
    <header class="station-head">
      <div>
        <h1>Paper cards</h1>
        <p class="muted">{{ table.cook }}: type a name, then the numbers; Enter goes on.</p>
      </div>
      <v-btn class="solid" :to="`/table/${id}`">To the table</v-btn>
    </header>
    <div class="spread">
      <form ref="form" class="plate paper" novalidate @submit.prevent @keydown.enter.prevent="enter">
        <div class="field name" :class="{ wrong: errors.taster }">
          <label for="paper-taster">Whose card?</label>
          <input
            id="paper-taster"
            v-model="taster"
            data-cell
            autocomplete="off"
            maxlength="40"
            autofocus
            :readonly="!!given"
          />
          <p v-if="errors.taster" class="says" role="alert">{{ errors.taster }}</p>
        </div>
        <template v-if="given">
          <div v-if="pick" class="field name" :class="{ wrong: errors.pick }">
            <label for="paper-pick">{{ pick }}</label>
            <input
              id="paper-pick"
              v-model="cells.pick"
              data-cell
              inputmode="numeric"
              maxlength="3"
              autocomplete="off"
            />
            <p v-if="errors.pick" class="says" role="alert">{{ errors.pick }}</p>
          </div>
          <table v-if="columns.length">
            <thead>
              <tr>
                <th scope="col">plate</th>
                <th v-for="column in columns" :key="column.key" scope="col">{{ column.title }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="code in given.order" :key="code">
                <th scope="row">{{ code }}</th>
                <td v-for="column in columns" :key="column.key">
                  <input
                    v-model="cells[`${code}|${column.key}`]"
                    data-cell
                    inputmode="numeric"
                    maxlength="1"
                    autocomplete="off"
                    :aria-label="`${column.title} of ${code}`"
                    :aria-invalid="!!errors[`${code}|${column.key}`]"
                    :title="errors[`${code}|${column.key}`]"
                    :class="{ bad: errors[`${code}|${column.key}`] }"
                  />
                </td>
              </tr>
            </tbody>
          </table>
          <p v-for="sentence in wrong" :key="sentence" class="says" role="alert">{{ sentence }}</p>
          <div class="ways">
            <v-btn class="solid" @click="hand">Hand the card in</v-btn>
            <v-btn @click="given = null">Somebody else</v-btn>
          </div>
        </template>
        <v-btn v-else class="begin" @click="begin">Begin their card</v-btn>
        <p v-if="done.length" class="muted" role="status">
          In: {{ done.join(', ') }}. {{ table.cards.length }} of {{ table.planned_cards }} cards.
        </p>
      </form>
      <CardsFile :table="table" @changed="show" />
    </div>
  </main>
</template>

<style scoped>
.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: var(--s-20);
  align-items: start;
  margin-top: var(--s-12);
}
.paper {
  display: grid;
  gap: var(--s-14);
  padding: var(--s-20) var(--s-24);
}
.name {
  max-width: 320px;
}
table {
  border-spacing: var(--s-4);
  overflow-x: auto;
}
th {
  font-weight: 600;
  font-size: var(--t-s);
  text-align: left;
  padding: 0 var(--s-4);
}
td input {
  text-align: center;
  font-size: var(--t-xl);
}
.bad {
  border-color: var(--stop) !important;
}
.says {
  color: var(--stop);
  margin: 0;
  font-size: var(--t-s);
}
.begin {
  justify-self: start;
}
.ways {
  display: flex;
  gap: var(--s-10);
}
@media (max-width: 900px) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
