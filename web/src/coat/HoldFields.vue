<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import { usePreferences } from '../app/preferences'

/** How long something is held, where, and how warm it is there. */
const hold = defineModel<string>('hold', { required: true })
const place = defineModel<string>('place', { required: true })
const heldAt = defineModel<string>('heldAt', { required: true })
const props = defineProps<{
  /** What is read of it so far, where nothing is typed [°C]. */
  celsius?: number
  label?: string
  placeholder?: string
  pot?: boolean
  errors: { hold?: string; place?: string; heldAt?: string }
}>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()
const places = computed(() => (catalogue.value?.places ?? []).filter((one) => (one.key === 'pot') === !!props.pot))
const chosen = computed(() => places.value.find((one) => one.key === place.value))
function move(to: string) {
  place.value = to
  heldAt.value = ''
}
</script>

<template>
  <div class="hold">
    <Select
      v-if="!pot"
      :model-value="place"
      label="Where"
      :options="places.map((one) => ({ value: one.key, title: one.says }))"
      :error="errors.place"
      @update:model-value="$event && move($event)"
    />
    <Field v-model="hold" :label="label ?? 'Hold'" :placeholder="placeholder ?? '2 h'" :error="errors.hold" />
    <Field
      v-model="heldAt"
      label="At"
      :placeholder="show.temperature(celsius ?? chosen?.usual_c ?? places[0]?.usual_c ?? 4)"
      :error="errors.heldAt"
    />
  </div>
</template>

<style scoped>
.hold {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-8) var(--s-10);
  align-items: start;
}
.where {
  grid-column: 1 / -1;
}
label {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
.says {
  color: var(--stop);
  font-size: var(--t-xs);
}
</style>
