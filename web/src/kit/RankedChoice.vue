<script setup lang="ts">
import { computed, toRef } from 'vue'
import { useRanked } from './rank'

/** A box that chooses from a list: whole words go before beginnings, those before what only holds the letters. */
interface Choosable {
  value: string
  title: string
  words: string
  also?: string
}
const chosen = defineModel<string>({ required: true })
const props = defineProps<{ items: Choosable[]; label: string; nothing: string; make?: string }>()
const emit = defineEmits<{ make: [typed: string] }>()
/** The item itself, not its key alone: its title stands in the box also where what is typed has left it behind. */
const item = computed(() => props.items.find((one) => one.value === chosen.value) ?? null)
const { search, shown } = useRanked(
  toRef(props, 'items'),
  (one) => one.words,
  () => item.value?.title,
)
</script>

<template>
  <v-autocomplete
    v-model:search="search"
    :model-value="item"
    :items="shown"
    return-object
    no-filter
    :aria-label="label"
    :no-data-text="nothing"
    @update:model-value="(one: Choosable | null) => one && (chosen = one.value)"
  >
    <template v-if="make && search?.trim() && search !== item?.title" #append-item>
      <v-list-item class="make" @click="emit('make', search.trim())">{{ make }}</v-list-item>
    </template>
    <template #item="{ item: one, props: row }">
      <v-list-item v-bind="row" :title="undefined">
        {{ one.title }} <small v-if="one.also" class="muted">{{ one.also }}</small>
      </v-list-item>
    </template>
  </v-autocomplete>
</template>

<style scoped>
.make {
  border-top: 1px solid var(--line);
  font-weight: 600;
}
</style>
