<script setup lang="ts">
import { computed } from 'vue'
import PieceBadge from '../draw/PieceBadge.vue'
import Field from '../kit/Field.vue'
import Tick from '../kit/Tick.vue'
import type { Schemas } from '../api/client'

/** A two-by-two: two things, each in two ways, with each of the four pieces on its own side. */
type Crossed = Pick<Schemas['DesignDocument'], 'letters' | 'kind'> & { sides: string[]; crossed: Schemas['Crossed'][] }
const doc = defineModel<Crossed>({ required: true })
defineProps<{ errors: Record<string, string>; frozen: boolean }>()
const on = computed(() => doc.value.sides.length > 0)
function toggle(now: boolean) {
  doc.value.sides = now ? ['Row one', 'Row two', 'Column one', 'Column two'] : []
  doc.value.crossed = now ? doc.value.letters.map((letter, at) => ({ letter, row: at >> 1, column: at % 2 })) : []
  if (now && !['scores', 'ranking'].includes(doc.value.kind)) doc.value.kind = 'scores'
}
const at = (row: number, column: number) => doc.value.crossed.find((one) => one.row === row && one.column === column)
/** Put a piece on a side; the one that stood there takes its place. */
function put(letter: string, row: number, column: number) {
  const mine = doc.value.crossed.find((one) => one.letter === letter)
  const other = at(row, column)
  if (!mine || !other) return
  Object.assign(other, { row: mine.row, column: mine.column })
  Object.assign(mine, { row, column })
}
const next = (row: number, column: number) => {
  const { letters } = doc.value
  return letters[(letters.indexOf(at(row, column)?.letter ?? '') + 1) % letters.length] ?? ''
}
</script>

<template>
  <div class="crossed">
    <Tick :model-value="on" :disabled="frozen" @update:model-value="toggle($event as boolean)">
      a two-by-two: two things, each in two ways, read in pairs
    </Tick>
    <table v-if="on">
      <thead>
        <tr>
          <td />
          <th v-for="column in 2" :key="column" scope="col">
            <Field v-model="doc.sides[column + 1] as string" :label="`Column ${column}`" :maxlength="40" />
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in 2" :key="row">
          <th scope="row"><Field v-model="doc.sides[row - 1] as string" :label="`Row ${row}`" :maxlength="40" /></th>
          <td v-for="column in 2" :key="column">
            <button
              type="button"
              :aria-label="`${doc.sides[row - 1]}, ${doc.sides[column + 1]}: piece ${at(row - 1, column - 1)?.letter}; another`"
              @click="put(next(row - 1, column - 1), row - 1, column - 1)"
            >
              <PieceBadge :letter="at(row - 1, column - 1)?.letter ?? 'A'" />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="errors.sides || errors.crossed" class="says" role="alert">{{ errors.sides || errors.crossed }}</p>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  border-spacing: var(--s-8);
}
th {
  font-weight: 400;
  text-align: left;
}
td {
  text-align: center;
  vertical-align: bottom;
}
td button {
  background: var(--tint) !important;
  border-radius: 12px !important;
  min-height: var(--tap);
  width: 100%;
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: var(--s-4) 0 0;
}
</style>
