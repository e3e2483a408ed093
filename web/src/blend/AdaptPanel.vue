<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, watch } from 'vue'
import { useCatalogue } from '../api/catalogue'
import type { Adapting } from './useReworked'

/** Asks what a blend is to be adapted to. */
const props = defineProps<{ lines: { grind: string; name: string }[]; allergens: string[] }>()
const emit = defineEmits<{ adapt: [to: Adapting] }>()
const { catalogue } = useCatalogue()

const to = reactive<Required<Adapting>>({ for_meat: '', for_fire: '', without: [], lacking: [] })
const meats = ['poultry', 'pork', 'beef', 'lamb', 'fish', 'game'] as const
const fires = ['direct flame', 'hot iron', 'indirect', 'oven', 'broiler'] as const
// what the blend holds first: that is what someone may not eat of it
const allergens = computed(() => [
  ...props.allergens,
  ...(catalogue.value?.allergens ?? []).filter((name) => !props.allergens.includes(name)),
])
const ask = useDebounceFn(() => emit('adapt', { ...to, without: [...to.without], lacking: [...to.lacking] }), 60)
watch(to, ask, { deep: true })
</script>

<template>
  <section class="adapt" aria-label="Adapt it">
    <p class="muted">Say what it is for; each change is proposed with its reason.</p>
    <fieldset>
      <legend>For</legend>
      <label v-for="name in ['', ...meats]" :key="name" :class="{ on: to.for_meat === name }">
        <input v-model="to.for_meat" type="radio" :value="name" />{{ name || 'any meat' }}
      </label>
    </fieldset>
    <fieldset>
      <legend>Over</legend>
      <label v-for="name in ['', ...fires]" :key="name" :class="{ on: to.for_fire === name }">
        <input v-model="to.for_fire" type="radio" :value="name" />{{ name || 'any fire' }}
      </label>
    </fieldset>
    <fieldset>
      <legend>Without</legend>
      <label v-for="name in allergens" :key="name" :class="{ on: to.without.includes(name) }">
        <input v-model="to.without" type="checkbox" :value="name" />{{ name }}
      </label>
    </fieldset>
    <fieldset>
      <legend>Not at hand</legend>
      <label v-for="line in lines" :key="line.grind" :class="{ on: to.lacking.includes(line.grind) }">
        <input v-model="to.lacking" type="checkbox" :value="line.grind" />{{ line.name }}
      </label>
    </fieldset>
  </section>
</template>

<style scoped>
.adapt {
  display: grid;
  gap: var(--s-14);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
legend {
  font-size: var(--t-xs);
  color: var(--muted);
  padding: 0 0 var(--s-4);
}
label {
  position: relative;
  border: 1.5px solid var(--line-strong);
  border-radius: 18px;
  padding: var(--s-6) var(--s-12);
  font-size: var(--t-s);
  cursor: pointer;
}
label.on {
  background: var(--cobalt);
  border-color: var(--cobalt);
  color: var(--on-cobalt);
}
label:has(:focus-visible) {
  outline: 3px solid var(--focus);
}
fieldset input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
@media (max-width: 720px) {
  fieldset label {
    min-height: 44px;
    display: grid;
    place-items: center;
  }
}
</style>
