<script setup lang="ts">
import { computed, useId } from 'vue'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'
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
const id = useId()
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
    <div v-if="!pot" class="where">
      <label :for="id">Where</label>
      <select :id="id" :value="place" @change="move(($event.target as HTMLSelectElement).value)">
        <option v-for="one in places" :key="one.key" :value="one.key">{{ one.says }}</option>
      </select>
      <span v-if="errors.place" class="says" role="alert">{{ errors.place }}</span>
    </div>
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
  gap: 8px 10px;
  align-items: start;
}
.where {
  grid-column: 1 / -1;
}
label {
  font-size: 13px;
  color: var(--muted);
  display: block;
  padding-bottom: 4px;
}
select {
  width: 100%;
  text-overflow: ellipsis;
}
.says {
  color: var(--stop);
  font-size: 13px;
}
</style>
