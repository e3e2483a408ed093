<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { api, call, sentenceOf } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'

/** What the household pays, for the ingredients of the blend at hand; the catalogue's estimate stands until then. */
const props = defineProps<{ keys: string[] }>()
const emit = defineEmits<{ changed: [] }>()
const open = ref(false)
const { grinds } = useCatalogue()
const queries = useQueryClient()
const { data: own } = useQuery({
  queryKey: ['prices'],
  queryFn: () => call(api.GET('/api/shelf/prices')),
  enabled: open,
})
const typed = reactive<Record<string, string>>({})
const errors = reactive<Record<string, string>>({})

const rows = computed(() => {
  const known = new Map(own.value?.map((price) => [price.ingredient, price.per_100g]))
  const found = new Map<string, { ingredient: string; name: string; usual: number; own: string }>()
  for (const key of props.keys) {
    const of = grinds.value.get(key)
    if (of)
      found.set(of.ingredient, {
        ingredient: of.ingredient,
        name: of.name,
        usual: of.price_100g,
        own: known.get(of.ingredient) ?? '',
      })
  }
  return [...found.values()]
})
const save = useChange(
  'prices',
  async (ingredient: string) => {
    const per_100g = typed[ingredient]
    if (per_100g === undefined) return
    await call(api.PUT('/api/shelf/prices', { body: { ingredient, per_100g } }))
    delete errors[ingredient]
    delete typed[ingredient]
    await refresh(queries, ['prices'])
    emit('changed')
  },
  { refused: (failure, [ingredient]) => (errors[ingredient] = sentenceOf(failure)) },
)
</script>

<template>
  <v-dialog v-model="open" max-width="440" aria-label="Your prices">
    <template #activator="{ props: opens }">
      <button v-bind="opens" type="button" class="own">Your own prices</button>
    </template>
    <section class="plate prices">
      <h2>What 100 g cost you</h2>
      <p class="muted">Empty goes by the catalogue’s estimate, which is off by a third either way.</p>
      <Field
        v-for="row in rows"
        :key="row.ingredient"
        :model-value="typed[row.ingredient] ?? row.own"
        :label="row.name"
        :placeholder="`about ${row.usual.toFixed(2)}`"
        :error="errors[row.ingredient]"
        @update:model-value="typed[row.ingredient] = $event"
        @focusout="save(row.ingredient)"
        @keydown.enter="save(row.ingredient)"
      />
      <v-btn class="solid" @click="open = false">Close</v-btn>
    </section>
  </v-dialog>
</template>

<style scoped>
.own {
  font-size: var(--t-s);
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  justify-self: start;
  padding: var(--s-2) 0;
}
.prices {
  padding: var(--s-24) var(--s-24);
  display: grid;
  gap: var(--s-12);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
</style>
