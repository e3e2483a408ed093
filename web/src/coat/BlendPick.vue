<script setup lang="ts">
import { computed, useId } from 'vue'
import type { Schemas } from '../api/client'

/** Which blend a layer is of, and whether it was mixed from an earlier state of it. */
const props = defineProps<{
  layer: Schemas['LayerDocument']
  stored?: Schemas['LayerOut']
  blends: Schemas['BlendRow'][]
  error?: string
}>()
const emit = defineEmits<{ choose: [blendId: string]; current: [] }>()
const id = useId()
const gone = computed(() => !!props.layer.blend_id && !props.blends.some((blend) => blend.id === props.layer.blend_id))
const choose = (event: Event) => emit('choose', (event.target as HTMLSelectElement).value)
</script>

<template>
  <div class="pick">
    <label :for="id">Blend</label>
    <div class="row">
      <select :id="id" :value="layer.blend_id" @change="choose">
        <option v-if="gone" :value="layer.blend_id" disabled>{{ stored?.blend_name || 'a blend' }} (deleted)</option>
        <option v-for="blend in blends" :key="blend.id" :value="blend.id">{{ blend.name }}</option>
      </select>
      <router-link v-if="!gone" :to="`/blend/${layer.blend_id}`" class="open">Open</router-link>
    </div>
    <p v-if="error" class="says" role="alert">{{ error }}</p>
    <p v-else-if="layer.revision" class="muted">
      Mixed as revision {{ layer.revision }}.
      <template v-if="stored?.changed_since">
        The blend has changed since.
        <button type="button" class="link" @click="$emit('current')">Use it as it is now</button>
      </template>
    </p>
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: 4px;
}
label {
  font-size: 13px;
  color: var(--muted);
}
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}
.open,
.link {
  color: var(--link) !important;
  text-decoration: underline !important;
  text-underline-offset: 3px;
}
p {
  margin: 0;
  font-size: 14px;
}
.says {
  color: var(--stop);
}
</style>
