<script setup lang="ts">
import { computed, ref } from 'vue'
import Field from '../kit/Field.vue'
import { percent } from '../kit/units'
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
      <label>
        <span>Gives way</span>
        <select :value="chosen" @change="way = Number(($event.target as HTMLSelectElement).value)">
          <template v-for="(layer, n) in layers" :key="n">
            <option v-if="layer.kind !== 'drippings'" :value="n">{{ layer.kind }}, {{ coat.nameOf(layer) }}</option>
          </template>
        </select>
      </label>
      <v-btn class="on-dark" @click="coat.giveWay(chosen)">Meet {{ percent(aimed) }}</v-btn>
    </template>
  </div>
</template>

<style scoped>
.wanted {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
}
.percent {
  width: 122px;
}
label span {
  font-size: 13px;
  display: block;
  padding-bottom: 4px;
}
select {
  max-width: 230px;
}
</style>
