<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import Tick from '../kit/Tick.vue'
import { askedAs, isRight } from './scales'
import type { Design } from './useTable'

/** What a card asks besides the one thing that decides: scales, ready words, and a guess where looks tell. */
type Asked = Pick<Schemas['DesignDocument'], 'scales' | 'words' | 'guess' | 'kind'>
const doc = defineModel<Asked>({ required: true })
const props = defineProps<{ design: Design; errors: Record<string, string>; frozen: boolean }>()
const groups = computed(() => [
  { title: 'Liked, from 1 to 9', scales: props.design.all_scales.filter((scale) => !isRight(scale.name)) },
  { title: 'Just right, too little or too much', scales: props.design.all_scales.filter((one) => isRight(one.name)) },
])
function toggle(scale: string, on: boolean) {
  doc.value.scales = on ? [...doc.value.scales, scale] : doc.value.scales.filter((one) => one !== scale)
}
const guess = computed({
  get: () => (doc.value.guess === null || doc.value.guess === undefined ? 'looks' : doc.value.guess ? 'yes' : 'no'),
  set: (now: string) => (doc.value.guess = now === 'looks' ? null : now === 'yes'),
})
</script>

<template>
  <section class="plate asks">
    <h2>What a card asks besides</h2>
    <p class="muted">Few questions are answered well. What is asked first decides; these explain it.</p>
    <div v-for="group in groups" :key="group.title" role="group" :aria-label="group.title">
      <p class="title">{{ group.title }}</p>
      <div class="scales">
        <Tick
          v-for="scale in group.scales"
          :key="scale.name"
          :model-value="doc.scales.includes(scale.name)"
          :disabled="frozen"
          @update:model-value="toggle(scale.name, $event as boolean)"
        >
          {{ askedAs(scale.name) }}
        </Tick>
      </div>
    </div>
    <p v-if="errors.scales" class="says" role="alert">{{ errors.scales }}</p>
    <Field
      :model-value="(doc.words ?? []).join(', ')"
      label="Words of your own beside the ready ones"
      :error="errors.words ?? errors['words.0']"
      :maxlength="300"
      @update:model-value="
        doc.words = $event
          .split(',')
          .map((one) => one.trim())
          .filter(Boolean)
      "
    />
    <template v-if="doc.kind !== 'triangle'">
      <p v-if="design.looks" class="looks">{{ design.looks }} Serve in dim light, or with the crust off.</p>
      <Choice
        v-model="guess"
        label="End each card with a guess of which plate is which"
        :options="[
          { value: 'looks', text: design.looks ? 'yes, as looks tell' : 'only where looks tell' },
          { value: 'yes', text: 'always' },
          { value: 'no', text: 'never' },
        ]"
      />
    </template>
  </section>
</template>

<style scoped>
.asks {
  display: grid;
  gap: var(--s-10);
  padding: var(--s-20) var(--s-24);
}
.asks > p {
  margin: 0;
  font-size: var(--t-s);
}
.title {
  margin: 0;
  font-weight: 600;
  font-size: var(--t-s);
}
.scales {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
}
.asks .looks {
  color: var(--caution);
  font-size: var(--t-m);
}
.says {
  color: var(--stop);
}
</style>
