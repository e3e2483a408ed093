<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, type Schemas } from '../api/client'
import Select from '../kit/Select.vue'
import { coatHere } from './useCoat'

/** The whole stack of a piece of another cook, as that is typed. */
defineEmits<{ take: [layers: Schemas['LayerDocument'][]] }>()
const coat = coatHere()
const { data: rows } = useQuery({ queryKey: ['cooks'], queryFn: () => call(api.GET('/api/cooks')) })
const cooks = computed(() =>
  (rows.value ?? [])
    .filter((row) => row.id !== coat.cook.value?.id && !row.problem && row.pieces.length)
    .map((row) => ({ value: row.id, title: row.name })),
)
const chosen = ref('')
const { data: stacks } = useQuery({
  queryKey: ['stacks', chosen],
  queryFn: () => call(api.GET('/api/cooks/{cook_id}/stacks', { params: { path: { cook_id: chosen.value } } })),
  enabled: () => !!chosen.value,
})
</script>

<template>
  <!-- here before the cooks are, so that nothing below it moves when they come -->
  <template v-if="!rows || cooks.length">
    <h3>Like a piece of another cook</h3>
    <Select v-model="chosen" label="Cook" :options="cooks" placeholder="choose" />
    <ul v-if="chosen">
      <li v-for="piece in stacks ?? []" :key="piece.letter">
        <button type="button" class="take" @click="$emit('take', piece.layers)">
          <b>{{ piece.letter }}, {{ piece.name }}</b>
          <span class="muted">{{ piece.layers.map((layer) => layer.kind).join(', ') }}</span>
        </button>
      </li>
    </ul>
  </template>
</template>

<style scoped>
h3 {
  font-size: var(--t-m);
  margin-top: var(--s-4);
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.take {
  text-align: left;
  width: 100%;
  padding: var(--s-6) var(--s-8);
  border-radius: 8px;
  font-size: var(--t-s);
  line-height: 1.3;
  min-height: 36px;
}
.take:hover {
  background: var(--tint);
}
.take b {
  display: block;
}
@media (max-width: 720px) {
  .take {
    min-height: 44px;
  }
}
</style>
