<script setup lang="ts">
import { useQuestion } from '../api/question'
import { computed, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { grindName, useCatalogue } from '../api/catalogue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import { coatHere } from './useCoat'

/** Binder or none: what the coat needs, and what each binder holds, costs in salt and fat, and tastes of. */
const coat = coatHere()
const { grinds } = useCatalogue()
const { show } = usePreferences()
const asked = computed(() => JSON.stringify({ piece: coat.piece.value, appetite: coat.doc.value?.appetite }))
const {
  answer: found,
  says,
  ask,
} = useQuestion({
  ask: (signal) => call(api.POST('/api/cooks/coat/binders', { body: JSON.parse(asked.value), signal })),
})
watch(asked, () => ask(), { immediate: true })
function name(choice: Schemas['BinderOut']): string {
  if (choice.name) return choice.name
  const grind = grinds.value.get(choice.grind)
  return grind ? grindName(grind) : choice.grind || 'No binder'
}
</script>

<template>
  <section class="plate binders" aria-label="Binder or none">
    <header>
      <h2>Binder or none</h2>
      <v-btn @click="coat.layBinders(false)">Done</v-btn>
    </header>
    <p v-if="says" class="says">{{ says }}</p>
    <template v-else-if="found">
      <p>
        <Why :figure="found.needs" of="Rub on the surface">{{ Number(found.needs.value.toFixed(1)) }} g</Why> of rub lie
        on 100 cm². {{ found.says }}
      </p>
      <div class="choices">
        <button
          v-for="(choice, n) in found.choices"
          :key="n"
          type="button"
          class="choice"
          :class="{ on: choice.chosen, short: !choice.enough }"
          :aria-pressed="choice.chosen"
          @click="coat.putStack(choice.layers)"
        >
          <span class="head">
            <b>{{ name(choice) }}</b>
            <span>{{ choice.grams ? show.dose(choice.grams) : '' }}</span>
          </span>
          <span class="bar" aria-hidden="true"><i :style="{ width: `${choice.sticks * 100}%` }" /></span>
          <span>
            {{ choice.enough ? 'all of it sticks' : `${show.dose(choice.falls_g)} fall off` }} (holds
            {{ choice.ceiling }} g) · salt
            {{ choice.salt_percent > 0.001 ? `+${percent(choice.salt_percent)}` : '+0' }}, in all
            {{ percent(choice.total.value) }}{{ choice.fat_g >= 0.1 ? ` · ${show.dose(choice.fat_g)} of fat` : '' }}
          </span>
          <span class="muted"
            >{{ choice.flavour }}{{ choice.allergens.length ? ` · holds ${choice.allergens.join(', ')}` : '' }}</span
          >
        </button>
      </div>
    </template>
    <p v-else class="muted">Trying the binders …</p>
  </section>
</template>

<style scoped>
.binders {
  padding: var(--s-20) var(--s-24);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-10);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h2 {
  font-size: var(--t-h3);
}
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: var(--s-10);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.says {
  color: var(--stop);
}
.choice {
  display: grid;
  gap: var(--s-4);
  text-align: left;
  font-size: var(--t-xs);
  line-height: 1.35;
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-10) var(--s-12);
}
.choice.on {
  box-shadow: inset 0 0 0 2px var(--cobalt);
}
.head {
  display: flex;
  justify-content: space-between;
  font-size: var(--t-s);
}
.bar {
  height: 8px;
  border-radius: 4px;
  background: repeating-linear-gradient(115deg, var(--caution) 0 3px, transparent 3px 7px);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--cobalt);
}
</style>
