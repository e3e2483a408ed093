<script setup lang="ts">
import { computed, ref } from 'vue'
import Field from '../kit/Field.vue'
import { percent } from '../kit/units'
import Select from '../kit/Select.vue'
import { coatHere } from './useCoat'

/** The salt wanted in all, and which layer gives way to it. */
const coat = coatHere()
const target = computed({
  get: () => coat.piece.value?.target ?? '',
  set: (typed: string) => coat.aimAt(typed),
})
const error = computed(() => coat.errorsOf(coat.current.value).target)
const aimed = computed(() => coat.mine.value?.target ?? null)
const layers = computed(() => coat.piece.value?.layers ?? [])
const way = ref<number | null>(null)
const givers = computed(() =>
  layers.value
    .map((layer, n) => ({ value: n, title: `${layer.kind}, ${coat.nameOf(layer)}`, kind: layer.kind }))
    .filter((one) => one.kind !== 'drippings'),
)
/** The layer that gives way: as chosen, else the one that usually does; none where one takes the rest already. */
const chosen = computed(() => {
  const usual = coat.mine.value?.gives ?? null
  return usual !== null && way.value !== null && way.value < layers.value.length ? way.value : usual
})
</script>

<template>
  <div class="wanted">
    <Field v-model="target" label="Salt wanted, %" placeholder="1.5" :error="error" class="percent" />
    <template v-if="aimed !== null && chosen !== null">
      <Select :model-value="chosen" label="Gives way" :options="givers" @update:model-value="way = $event ?? 0" />
      <v-btn class="on-dark" @click="coat.giveWay(chosen)">Meet {{ percent(aimed) }}</v-btn>
    </template>
  </div>
</template>

<style scoped>
.wanted {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8) var(--s-12);
  align-items: end;
}
.percent {
  width: 122px;
}
label span {
  font-size: var(--t-xs);
  display: block;
  padding-bottom: var(--s-4);
}
</style>
