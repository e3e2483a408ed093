<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import ArmBadge from '../ui/ArmBadge.vue'
import TitleInput from '../ui/TitleInput.vue'
import CautionList from '../ui/CautionList.vue'
import PieceFields from './PieceFields.vue'
import SaltBar from './SaltBar.vue'
import SaltLayer from './SaltLayer.vue'
import SeasoningLayer from './SeasoningLayer.vue'

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
  // salt goes on after a bath, which would wash it off, and before a rub
  const salt = arm.value.layers.filter((one) => one.kind === 'salt')
  arm.value.layers = kind === 'marinade' ? [layer, ...salt] : [...salt, layer]
}
const saltGrams = computed(() => props.reading?.layers.map((layer) => layer.salt.value) ?? [])
const kinds = computed(() => props.reading?.layers.map((layer) => layer.kind) ?? [])
</script>

<template>
  <section class="plate arm" :aria-label="`Arm ${arm.label}, ${arm.name}`">
    <div class="head">
      <ArmBadge :label="arm.label" />
      <TitleInput v-model="arm.name" :label="`Name of arm ${arm.label}`" :most="40" size="part" :error="errors.name" />
    </div>
    <CautionList v-if="reading" :cautions="reading.cautions" only="stops" />
    <PieceFields
      v-model="arm.piece"
      :reading="reading?.piece ?? null"
      :errors="errors"
      :longest="longest"
      :label="arm.label"
    />
    <template v-for="(layer, at) in arm.layers" :key="at">
      <SaltLayer
        v-if="layer.kind === 'salt'"
        v-model="arm.layers[at]"
        :reading="of(at)"
        :errors="layerErrors(at)"
        @remove="arm.layers.splice(at, 1)"
      />
      <SeasoningLayer
        v-else
        v-model="arm.layers[at]"
        :reading="of(at)"
        :stored="stored?.layers[at]"
        :blends="blends"
        :errors="layerErrors(at)"
        @choose="choose(at, $event)"
        @batch="$emit('batch', $event)"
      />
    </template>
    <p v-if="errors.layers" class="says" role="alert">{{ errors.layers }}</p>
    <SaltBar v-if="reading" :salt="reading.salt" :zone="reading.zone" :layers="saltGrams" :kinds="kinds" />
    <CautionList v-if="reading" :cautions="reading.cautions" only="others" />
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
.says {
  color: var(--stop);
  font-size: 14px;
  margin: 0;
}
@media (max-width: 720px) {
  .arm {
    padding: 16px;
  }
}
</style>
