<script setup lang="ts">
import { toRef } from 'vue'
import { useRanked } from './rank'

/** A box that chooses from a list: whole words go before beginnings, those before what only holds the letters. */
interface Choosable {
  value: string
  title: string
  words: string
  also?: string
}
const chosen = defineModel<string>({ required: true })
const props = defineProps<{ items: Choosable[]; label: string; nothing: string }>()
const { search, shown } = useRanked(
  toRef(props, 'items'),
  (item) => item.words,
  () => props.items.find((item) => item.value === chosen.value)?.title,
)
</script>

<template>
  <v-autocomplete
    v-model="chosen"
    v-model:search="search"
    :items="shown"
    no-filter
    :aria-label="label"
    :no-data-text="nothing"
  >
    <template #item="{ item, props: row }">
      <v-list-item v-bind="row" :title="undefined">
        {{ item.title }} <small v-if="item.also" class="muted">{{ item.also }}</small>
      </v-list-item>
    </template>
  </v-autocomplete>
</template>
