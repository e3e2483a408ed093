<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import ArmBadge from '../ui/ArmBadge.vue'
import CautionList from '../ui/CautionList.vue'
import MarinadeLayer from './MarinadeLayer.vue'
import PieceFields from './PieceFields.vue'
import RubLayer from './RubLayer.vue'
import SaltBar from './SaltBar.vue'
import SaltLayer from './SaltLayer.vue'

/** One arm: its piece, its layers in order, and the salt they put on the meat. */
const arm = defineModel<Schemas['ArmDocument']>({ required: true })
const props = defineProps<{
  reading: Schemas['ArmReadingOut'] | null
  stored: Schemas['ArmOut'] | undefined
  blends: Schemas['BlendRow'][]
  errors: Record<string, string>
  longest: number
}>()
defineEmits<{ batch: [blendId: string] }>()

type Layer = Schemas['LayerDocument']

/** What the reading says of a layer, as long as it is of this kind. */
function of(at: number) {
  const found = props.reading?.layers[at]
  return found && found.kind === arm.value.layers[at]?.kind ? found : null
}
const layerErrors = (at: number) => {
  const start = `layers.${at}.`
  return Object.fromEntries(
    Object.entries(props.errors).flatMap(([field, sentence]) =>
      field.startsWith(start) ? [[field.slice(start.length), sentence]] : [],
    ),
  )
}

/** Choose another blend: a marinade becomes a bath, anything else a coat. */
function choose(at: number, blendId: string) {
  const kind = props.blends.find((blend) => blend.id === blendId)?.kind === 'marinade' ? 'marinade' : 'rub'
  const before = arm.value.layers[at]
  const layer: Layer = { ...before, kind, blend_id: blendId, revision: null }
  if (kind === 'marinade' && !layer.vessel) Object.assign(layer, { vessel: 'bag', hold: '4 h', hold_c: 4 })
  if (kind === 'rub' && !layer.surface) Object.assign(layer, { surface: 'moist', coat: '5', hold: '2 h' })
  arm.value.layers.splice(at, 1, layer)
}
const saltGrams = computed(() => props.reading?.layers.map((layer) => layer.salt.value) ?? [])
const kinds = computed(() => props.reading?.layers.map((layer) => layer.kind) ?? [])
</script>

<template>
  <section class="plate arm" :aria-label="`Arm ${arm.label}, ${arm.name}`">
    <div class="head">
      <ArmBadge :label="arm.label" />
      <label class="sr-only" :for="`arm-${arm.label}`">Name of arm {{ arm.label }}</label>
      <input :id="`arm-${arm.label}`" v-model="arm.name" class="name" maxlength="40" autocomplete="off" />
    </div>
    <PieceFields
      v-model="arm.piece"
      :reading="reading?.piece ?? null"
      :errors="errors"
      :longest="longest"
      :label="arm.label"
    />
    <template v-for="(layer, at) in arm.layers" :key="at">
      <RubLayer
        v-if="layer.kind === 'rub'"
        v-model="arm.layers[at]"
        :reading="of(at)"
        :stored="stored?.layers[at]"
        :blends="blends"
        :errors="layerErrors(at)"
        @choose="choose(at, $event)"
        @batch="$emit('batch', $event)"
      />
      <MarinadeLayer
        v-else-if="layer.kind === 'marinade'"
        v-model="arm.layers[at]"
        :reading="of(at)"
        :stored="stored?.layers[at]"
        :blends="blends"
        :errors="layerErrors(at)"
        @choose="choose(at, $event)"
        @batch="$emit('batch', $event)"
      />
      <SaltLayer
        v-else
        v-model="arm.layers[at]"
        :reading="of(at)"
        :errors="layerErrors(at)"
        @remove="arm.layers.splice(at, 1)"
      />
    </template>
    <SaltBar v-if="reading" :salt="reading.salt" :zone="reading.zone" :layers="saltGrams" :kinds="kinds" />
    <CautionList v-if="reading" :cautions="reading.cautions" />
  </section>
</template>

<style scoped>
.arm {
  padding: 20px 24px;
  display: grid;
  gap: 16px;
  align-content: start;
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
}
.name {
  font-family: var(--display) !important;
  font-size: 22px !important;
  font-weight: 700 !important;
  background: transparent !important;
  padding: 0 6px !important;
}
@media (max-width: 720px) {
  .arm {
    padding: 16px;
  }
}
</style>
