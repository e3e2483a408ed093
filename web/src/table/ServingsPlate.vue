<script setup lang="ts">
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'
import { say } from '../kit/notice'
import RowMenu from '../kit/RowMenu.vue'
import NumberedPlate from './NumberedPlate.vue'
import TasterMark from './TasterMark.vue'
import type { Table } from './useTable'

/** Who tastes what, in which order: a row of numbered plates for everybody. */
const props = defineProps<{ table: Table }>()
const emit = defineEmits<{ changed: [table: Table]; taste: [taster: string]; seats: [] }>()
type Serving = Schemas['ServingOut']

const path = () => ({ trial_id: props.table.trial_id })
const cardOf = (one: Serving) => props.table.cards.find((card) => card.id === one.card_id)
const takeBack = useChange('trial', async (one: Serving) => {
  const params = { path: { ...path(), card_id: one.card_id ?? '' } }
  emit('changed', await call(api.POST('/api/trials/{trial_id}/cards/{card_id}/delete', { params })))
  say(`${one.taster}’s card is taken back.`, async () => {
    emit('changed', await call(api.POST('/api/trials/{trial_id}/cards/{card_id}/restore', { params })))
  })
})
const leave = useChange('trial', async (one: Serving, gone: boolean) => {
  const body = { taster: one.taster, gone }
  emit('changed', await call(api.POST('/api/trials/{trial_id}/gone', { params: { path: path() }, body })))
})

function stateOf(one: Serving, next: string | undefined): string {
  const card = cardOf(one)
  if (card) return card.whole ? 'card in' : 'left early, card in'
  if (one.state === 'gone') return 'left without a card'
  const child = one.short ? 'a child’s card, ' : ''
  return `${child}${one.taster === next ? 'tastes next' : 'waits'}`
}
const nextOf = (table: Table) => table.servings.find((one) => one.state === 'waits' && one.order.length)?.taster
const doings = (one: Serving) =>
  one.state === 'in'
    ? [{ text: 'Take the card back', label: `Take back ${one.taster}’s card`, does: () => takeBack(one) }]
    : [
        { text: 'Fill in their card', label: `Fill in ${one.taster}’s card`, does: () => emit('taste', one.taster) },
        one.state === 'gone'
          ? { text: 'They are back', label: `${one.taster} is back`, does: () => leave(one, false) }
          : { text: 'They left', label: `${one.taster} left`, does: () => leave(one, true) },
      ]
</script>

<template>
  <section class="plate servings" aria-labelledby="servings">
    <header>
      <h2 id="servings">Who tastes what, in which order</h2>
      <button v-if="!table.revealed" type="button" class="link" @click="$emit('seats')">Who tastes?</button>
    </header>
    <p v-if="table.balance.says" class="muted balance" :class="{ uneven: !table.balance.even }">
      {{ table.balance.says }}
    </p>
    <ol v-if="table.servings.length">
      <li
        v-for="one in table.servings"
        :key="one.taster_id"
        :class="[one.state, { next: one.taster === nextOf(table) }]"
      >
        <span class="who">
          <TasterMark :name="one.taster" :blind="cardOf(one)?.blind ?? !table.seen_by.includes(one.taster)" />
          <span class="muted">{{ stateOf(one, nextOf(table)) }}</span>
        </span>
        <p v-if="one.says" class="says">{{ one.says }}</p>
        <span v-if="one.order.length" class="order" :aria-label="one.order.join(', then ')" role="img">
          <template v-for="(code, at) in one.order" :key="code">
            <i v-if="at" aria-hidden="true" />
            <NumberedPlate :code="code" :size="62" />
          </template>
        </span>
        <RowMenu v-if="!table.revealed || one.state === 'in'" :of="one.taster" :doings="doings(one)" />
      </li>
    </ol>
    <div v-else class="none">
      <span class="empty" aria-hidden="true"
        ><NumberedPlate v-for="code in table.codes" :key="code" :code="code" :size="104"
      /></span>
      <p>
        Say who tastes, and everybody gets the plates in an order of their own, balanced over the table. Or hand the
        phone round: who walks up gets the next order.
      </p>
      <v-btn @click="$emit('seats')">Say who tastes</v-btn>
    </div>
  </section>
</template>

<style scoped>
.servings {
  padding: var(--s-20) var(--s-24);
}
header {
  display: flex;
  justify-content: space-between;
  gap: var(--s-12);
  align-items: baseline;
}
.balance {
  margin: var(--s-4) 0 var(--s-8);
  font-size: var(--t-m);
}
.uneven {
  color: var(--caution);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(120px, 190px) minmax(0, 1fr) auto;
  gap: var(--s-4) var(--s-12);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-6) 0;
  min-height: 76px;
}
.who {
  display: grid;
  gap: var(--s-2);
  justify-items: start;
}
.who .muted {
  font-size: var(--t-s);
}
.says {
  margin: 0;
  font-size: var(--t-s);
  color: var(--caution);
}
.says + .order {
  grid-column: 2;
}
.order {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-4);
}
.order i {
  width: 26px;
  border-top: 1.5px solid var(--line-strong);
  position: relative;
}
.order i::after {
  content: '';
  position: absolute;
  right: 0;
  top: -4.5px;
  width: 7px;
  height: 7px;
  border: solid var(--line-strong);
  border-width: 1.5px 1.5px 0 0;
  transform: rotate(45deg);
}
li.in .order,
li.gone .order {
  opacity: 0.45;
}
li.gone .who .muted {
  color: var(--caution);
}
li.next .order {
  --line-strong: var(--rim);
}
.none {
  display: grid;
  justify-items: center;
  gap: var(--s-16);
  padding: var(--s-32) 0 var(--s-16);
  text-align: center;
}
.none p {
  max-width: 46ch;
  margin: 0;
}
.empty {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-16);
  justify-content: center;
}
@media (max-width: 720px) {
  .servings {
    padding: var(--s-16);
  }
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .order,
  .says,
  .says + .order {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  .says + .order {
    grid-row: 3;
  }
}
</style>
