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
defineEmits<{ batch: [blendId: string]; choose: [blendId: string] }>()

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

const saltPercents = computed(() => props.reading?.layers.map((layer) => layer.salt.value) ?? [])
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
        @choose="$emit('choose', $event)"
        @batch="$emit('batch', $event)"
      />
    </template>
    <p v-if="errors.layers" class="says" role="alert">{{ errors.layers }}</p>
    <SaltBar v-if="reading" :salt="reading.salt" :zone="reading.zone" :layers="saltPercents" :kinds="kinds" />
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
