<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { useChange } from '../api/change'
import { api, byField, call, Refusal, sentenceOf } from '../api/client'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import Tick from '../kit/Tick.vue'
import type { Table } from './useTable'

/** Who tastes: people of the household first, then guests; a child gets a short card. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ table: Table }>()
const emit = defineEmits<{ changed: [table: Table] }>()

const { data: people } = useQuery({
  queryKey: ['tasters'],
  queryFn: () => call(api.GET('/api/cooks/tasters')),
  enabled: open,
})
const chosen = reactive<Record<string, boolean>>({})
const children = reactive<Record<string, boolean>>({})
const guests = ref<string[]>([])
const more = ref('')
const wrong = ref<Record<string, string>>({})
watch(open, (now) => {
  if (!now) return
  for (const name of Object.keys(chosen)) chosen[name] = false
  for (const one of props.table.servings) {
    chosen[one.taster] = one.state !== 'gone'
    children[one.taster] = one.short
  }
  guests.value = []
  wrong.value = {}
}, { immediate: true }) // prettier-ignore
const names = computed(() => {
  const usual = props.table.tasters
  const rows = [...(people.value ?? [])].sort((a, b) => usual.indexOf(a.nickname) - usual.indexOf(b.nickname))
  const listed = rows.map((row) => ({ name: row.nickname, about: [row.guest ? 'guest' : '', row.avoids.length ? `does not eat ${row.avoids.join(', ')}` : ''].filter(Boolean).join('; ') })) // prettier-ignore
  return [...listed, ...guests.value.map((name) => ({ name, about: 'new guest' }))]
})
const seats = computed(() => names.value.filter(({ name }) => chosen[name]))
function add() {
  const name = more.value.trim()
  if (!name) return
  const known = names.value.find((one) => one.name.toLowerCase() === name.toLowerCase())
  if (!known) guests.value.push(name)
  chosen[known?.name ?? name] = true
  more.value = ''
}
const save = useChange(
  'trial',
  async () => {
    add()
    const body = {
      version: props.table.version,
      seats: seats.value.map(({ name }) => ({ taster: name, short: children[name] ?? false })),
    }
    const path = { trial_id: props.table.trial_id }
    emit('changed', await call(api.PUT('/api/trials/{trial_id}/seats', { params: { path }, body })))
    open.value = false
  },
  {
    refused: (failure) => {
      if (failure instanceof Refusal && failure.problem.theirs) {
        emit('changed', failure.problem.theirs as unknown as Table)
        say('This table was changed in another window; say again who tastes.')
        return
      }
      wrong.value = byField(failure)
      if (!Object.keys(wrong.value).length) say(sentenceOf(failure))
    },
  },
)
const wrongOf = (name: string) => {
  const at = seats.value.findIndex((one) => one.name === name)
  return at < 0 ? '' : (wrong.value[`seats.${at}.taster`] ?? '')
}
</script>

<template>
  <v-dialog v-model="open" max-width="560" aria-label="Who tastes?" scrollable>
    <section class="plate seats">
      <h2>Who tastes?</h2>
      <p class="muted">Each gets the plates in an order of their own. Nobody is given what they may not eat.</p>
      <ul>
        <li v-for="one in names" :key="one.name">
          <Tick v-model="chosen[one.name] as boolean">
            <b class="named">{{ one.name }}</b> <span class="muted">{{ one.about }}</span>
          </Tick>
          <Tick v-if="chosen[one.name]" v-model="children[one.name] as boolean">child’s card</Tick>
          <p v-if="wrongOf(one.name)" class="says" role="alert">{{ wrongOf(one.name) }}</p>
        </li>
      </ul>
      <div class="bottom">
        <form class="more" @submit.prevent="add">
          <Field v-model="more" label="Somebody else, by nickname" :maxlength="40" />
          <v-btn type="submit" :disabled="!more.trim()">Add</v-btn>
        </form>
        <div class="ways">
          <v-btn class="solid" @click="save">{{
            seats.length === 1 ? 'Seat this one' : `Seat these ${seats.length}`
          }}</v-btn>
          <v-btn @click="open = false">Leave it</v-btn>
        </div>
      </div>
    </section>
  </v-dialog>
</template>

<style scoped>
.seats {
  padding: var(--s-24);
  overflow-y: auto;
}
.seats > p {
  margin: var(--s-4) 0 var(--s-8);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  columns: 1;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 var(--s-12);
  border-top: 1px solid var(--line);
}
li .muted {
  font-size: var(--t-s);
}
.says {
  flex: 1 0 100%;
  color: var(--stop);
  font-size: var(--t-s);
  margin: 0 0 var(--s-6);
}
/* always in sight, however many there are */
.bottom {
  position: sticky;
  bottom: -24px;
  margin: 0 -24px -24px;
  padding: 0 var(--s-24) var(--s-20);
  background: var(--plate);
  border-top: 1px solid var(--line);
}
.more {
  display: flex;
  gap: var(--s-8);
  align-items: end;
  margin: var(--s-12) 0 var(--s-16);
}
.more .field {
  flex: 1;
}
.ways {
  display: flex;
  gap: var(--s-10);
}
.named {
  margin-right: var(--s-8);
}
</style>
