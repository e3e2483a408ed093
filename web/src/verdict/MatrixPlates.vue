<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call } from '../api/client'
import TakePicture from './TakePicture.vue'
import { counted, upper, type Asked } from './useQuestion'

/** More than two ways: a plate for each pair, each by its own evidence, its twenty grains by side. */
const props = defineProps<{ asked: Asked }>()
const emit = defineEmits<{ ask: [changed: Asked] }>()
const kind = computed(() => props.asked.kind ?? 'way')
const { data } = useQuery({
  queryKey: computed(() => ['verdicts', 'matrix', kind.value, props.asked.who]),
  queryFn: () =>
    call(api.GET('/api/verdicts/matrix', { params: { query: { kind: kind.value, who: props.asked.who ?? 'table' } } })),
})
const table = ref<HTMLElement | null>(null)
const sides = computed(() => data.value?.sides ?? [])
const plate = (row: string, column: string) => {
  const found = data.value?.plates.find(
    (one) => (one.first === row && one.second === column) || (one.first === column && one.second === row),
  )
  if (!found) return undefined
  const turned = found.first !== row
  const turn = (side: string) => (side === 'first' ? 'second' : side === 'second' ? 'first' : side)
  const grains = (turned ? [...found.grains].reverse().map(turn) : found.grains).filter(Boolean)
  return { ...found, grains }
}
const take = (first: string, second: string) => emit('ask', { kind: kind.value, first, second })
</script>

<template>
  <section v-if="sides.length > 2" class="plate matrix" aria-labelledby="all-ways">
    <h2 id="all-ways">{{ kind === 'way' ? 'All ways' : 'All of them' }} against each other</h2>
    <p>{{ data?.says }} <span class="muted">Over all cuts; each pair by its own evidence.</span></p>
    <div class="scroll" tabindex="0" role="group" aria-label="Plates by pair">
      <table ref="table">
        <thead>
          <tr>
            <td></td>
            <th v-for="side in sides.slice(1)" :key="side.key" scope="col">{{ upper(side.name) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, at) in sides.slice(0, -1)" :key="row.key">
            <th scope="row">{{ upper(row.name) }}</th>
            <td v-for="(column, to) in sides.slice(1)" :key="column.key">
              <template v-if="to >= at">
                <button
                  v-if="plate(row.key, column.key)"
                  type="button"
                  class="pair"
                  @click="take(plate(row.key, column.key)!.first, plate(row.key, column.key)!.second)"
                >
                  <svg
                    :data-caption="`${upper(row.name)} or ${column.name}: ${plate(row.key, column.key)!.headline}`"
                    viewBox="0 0 104 26"
                    width="104"
                    height="26"
                    aria-hidden="true"
                  >
                    <template v-for="(side, n) in plate(row.key, column.key)!.grains" :key="n">
                      <rect
                        v-if="side === 'second'"
                        class="second"
                        :x="(n % 10) * 10.2 + 2"
                        :y="Math.floor(n / 10) * 12 + 2"
                        width="8"
                        height="8"
                      />
                      <circle
                        v-else
                        :class="side === 'first' ? 'first' : 'none'"
                        :cx="(n % 10) * 10.2 + 6"
                        :cy="Math.floor(n / 10) * 12 + 6"
                        r="4.2"
                      />
                    </template>
                  </svg>
                  <b>{{ plate(row.key, column.key)!.headline }}</b>
                  <span class="muted"
                    >{{ counted(plate(row.key, column.key)!.cooks, 'cook') }},
                    {{ counted(plate(row.key, column.key)!.cards, 'card') }}</span
                  >
                </button>
                <span v-else class="muted">never together</span>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="muted key">
      Round: the one in the row is better. Square: the one in the column. Grey: too little to matter.
    </p>
    <TakePicture :of="() => table" name="All ways against each other" />
  </section>
</template>

<style scoped>
.matrix {
  padding: var(--s-20) var(--s-24);
}
p {
  margin: var(--s-6) 0 0;
}
.scroll {
  overflow-x: auto;
  margin-top: var(--s-12);
}
table {
  border-collapse: separate;
  border-spacing: 6px;
}
th {
  font-size: var(--t-s);
  text-align: left;
  font-weight: 600;
  min-width: 96px;
  vertical-align: bottom;
}
tbody th {
  vertical-align: middle;
}
.pair {
  display: grid;
  gap: var(--s-4);
  justify-items: start;
  text-align: left;
  border: 1.5px solid var(--rim);
  border-radius: 12px;
  padding: var(--s-8) var(--s-12);
  min-width: 150px;
  font-size: var(--t-s);
}
.pair:hover {
  background: var(--tint);
}
.first {
  fill: var(--piece-a);
}
.second {
  fill: var(--piece-b);
}
.none {
  fill: color-mix(in srgb, var(--muted) 55%, var(--line-strong));
}
.key {
  font-size: var(--t-s);
}
</style>
