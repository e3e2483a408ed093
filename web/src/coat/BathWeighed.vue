<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import Field from '../kit/Field.vue'
import { layerHere } from './useCoat'

/** What was weighed of a bath: what was used and left, the piece before and after, the salt of what is left. */
const props = defineProps<{
  at: number
  reading: Schemas['LayerShown'] | null
  errors: Record<string, string>
}>()
const layer = layerHere(() => props.at)
type Weighed = Required<Schemas['BathWeighedDocument']>
const none: Weighed = { used: '', left: '', before: '', after: '', left_salt: '', times: '' }
const text = (key: keyof Weighed) =>
  computed({
    get: () => layer.value.weighed?.[key] ?? '',
    set: (typed: string) => (layer.value.weighed = { ...none, ...layer.value.weighed, [key]: typed }),
  })
const used = text('used')
const left = text('left')
const before = text('before')
const after = text('after')
const salt = text('left_salt')
const times = text('times')
const says = (key: keyof Weighed) => props.errors[`weighed.${key}`]
const found = computed(() => {
  const by = props.reading?.times ?? 1
  if (by === 1) return 'As much salt goes in as is reckoned.'
  return `${by.toFixed(2)} times as much salt goes in as is reckoned${salt.value ? ', by the meter' : ''}.`
})
</script>

<template>
  <div class="weighed" role="group" aria-label="Weigh the bath back">
    <p class="muted">
      Weigh the piece before and after, or the bath before and after. A salt meter in what is left over settles it: the
      salt of a bath is the least certain there is without.
    </p>
    <div class="three">
      <Field v-model="used" label="Bath used" placeholder="900 g" :error="says('used')" />
      <Field v-model="left" label="Left over" placeholder="820 g" :error="says('left')" />
      <Field v-model="salt" label="Its salt then, %" placeholder="by a meter" :error="says('left_salt')" />
    </div>
    <div class="three">
      <Field v-model="before" label="Piece before" placeholder="its raw weight" :error="says('before')" />
      <Field v-model="after" label="Piece after" placeholder="2060 g" :error="says('after')" />
      <Field v-model="times" label="Takes up, × reckoned" placeholder="1" :error="says('times')" />
    </div>
    <p>{{ found }}</p>
  </div>
</template>

<style scoped>
.weighed {
  display: grid;
  gap: var(--s-10);
}
.three {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-8);
  align-items: start;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
@media (max-width: 720px) {
  .three {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
