<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { grindName, useCatalogue } from '../ui/catalogue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'

/** Salt by weight, apart from rub and marinade. */
const layer = defineModel<Schemas['LayerDocument']>({ required: true })
defineProps<{ reading: Schemas['LayerReadingOut'] | null; errors: Record<string, string> }>()
defineEmits<{ remove: [] }>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()
const salts = computed(() => (catalogue.value?.grinds ?? []).filter((grind) => grind.family === 'salt'))
const percent = computed({ get: () => layer.value.percent ?? '', set: (text) => (layer.value.percent = text) })
</script>

<template>
  <section class="layer" aria-label="Salt by weight">
    <Field v-model="percent" label="Salt, % of meat" :error="errors.percent" class="share" />
    <div class="kind">
      <label>
        <span>Which salt</span>
        <select v-model="layer.grind">
          <option v-for="salt in salts" :key="salt.key" :value="salt.key">{{ grindName(salt) }}</option>
        </select>
      </label>
      <p v-if="errors.grind" class="says" role="alert">{{ errors.grind }}</p>
    </div>
    <p v-if="reading" class="dose">
      <b
        ><Why :figure="reading.dose" of="Salt to weigh">{{ show.mass(reading.dose.value) }}</Why></b
      >
      <span class="muted"
        ><Why :figure="reading.spoons.volume" of="Spoons of salt">{{ reading.spoons.text }}</Why></span
      >
    </p>
    <button type="button" class="link" @click="$emit('remove')">Remove</button>
  </section>
</template>

<style scoped>
.layer {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) auto auto;
  gap: 12px;
  align-items: start;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
label span {
  font-size: 13px;
  color: var(--muted);
  display: block;
  padding-bottom: 4px;
}
.dose {
  margin: 20px 0 0;
  display: grid;
  line-height: 1.3;
  font-size: 15px;
}
.dose span {
  font-size: 13px;
}
.says {
  color: var(--stop);
  font-size: 13px;
}
.link {
  color: var(--link) !important;
  font-size: 14px !important;
  text-decoration: underline;
  margin-top: 26px;
}
@media (max-width: 720px) {
  .layer {
    grid-template-columns: 104px minmax(0, 1fr);
  }
  .dose,
  .link {
    margin-top: 0;
    min-height: 44px;
    text-align: left;
  }
}
</style>
