<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import CautionList from '../ui/CautionList.vue'
import ArmBadge from '../ui/ArmBadge.vue'
import { useCatalogue } from '../ui/catalogue'
import { usePreferences } from '../ui/preferences'
import { percent } from '../ui/units'
import Why from '../ui/Why.vue'
import CrustPlate from './CrustPlate.vue'
import StepList from './StepList.vue'

/** One arm of the cook in hand: its crust on a plate, its dose, its salt and its steps. */
const props = defineProps<{ arm: Schemas['ArmOut']; cookId: string; nextStep?: string }>()
defineEmits<{ tick: [stepId: string, done: boolean]; length: [stepId: string, lasts: string] }>()

const { catalogue, grinds, cuts } = useCatalogue()
const { show } = usePreferences()
const MAIN = ['rub', 'paste', 'marinade', 'injection']
const at = computed(() => {
  const kinds = props.arm.layers.map((layer) => layer.typed.kind)
  return Math.max(
    0,
    kinds.findIndex((kind) => MAIN.includes(kind)),
  )
})
const main = computed(() => props.arm.layers[at.value])
const reading = computed(() => props.arm.reading?.layers[at.value])
const blend = computed(() =>
  (main.value?.grinds ?? []).flatMap((key, n) => {
    const of = grinds.value.get(key)
    return of && main.value ? [{ of, share: main.value.shares[n] ?? 0 }] : []
  }),
)
const meat = computed(() => cuts.value.get(props.arm.piece.cut)?.name ?? 'a cut that is gone')
/** The stack in a line: "salt, orange and buttermilk, rub". */
const describes = computed(
  () =>
    props.arm.layers
      .map((layer) => layer.blend_name || (layer.typed.kind === 'pre-salt' ? 'salt ahead' : layer.typed.kind))
      .join(', then ') || 'no seasoning yet',
)
const bath = computed(() => main.value?.typed.kind === 'marinade')
const amount = computed(() => {
  const dose = reading.value?.dose
  return !dose ? '' : dose.unit === 'ml' ? show.value.volume(dose.value) : show.value.dose(dose.value)
})
const unit = computed(
  () => catalogue.value?.layer_kinds.find((kind) => kind.key === main.value?.typed.kind)?.unit ?? '',
)
</script>

<template>
  <section class="plate arm" :aria-label="`Arm ${arm.label}, ${arm.name}`">
    <header>
      <ArmBadge :label="arm.label" />
      <h2>{{ arm.name }}</h2>
      <router-link :to="`/coat/${cookId}`" class="muted open">{{ meat }}, {{ arm.piece.mass }}</router-link>
    </header>
    <p class="muted">{{ describes }}</p>
    <p v-for="problem in arm.problems" :key="problem.field" class="problem" role="alert">
      {{ problem.sentence }} <router-link :to="`/coat/${cookId}`">Mend it in Coat</router-link>
    </p>
    <CautionList v-if="arm.reading" :cautions="arm.reading.cautions" only="stops" />
    <div class="body">
      <div class="seen">
        <CrustPlate :blend="blend" :bath="bath" :name="arm.name" />
        <div v-if="reading && arm.reading">
          <p class="big">
            <Why :figure="reading.dose" :of="`Dose of ${main?.blend_name || main?.typed.kind}`">{{ amount }}</Why>
          </p>
          <p class="muted">
            {{ main?.typed.kind
            }}{{
              bath && main?.typed.vessel
                ? `, in a ${main.typed.vessel}`
                : `, ${Number(reading.dose_setting.toPrecision(3))} ${unit}`
            }}
          </p>
          <p class="big">
            <Why :figure="arm.reading.salt" :of="`Salt on ${arm.label}`">{{ percent(arm.reading.salt.value) }}</Why>
          </p>
          <p class="muted">salt, all layers: {{ arm.reading.zone }}</p>
        </div>
      </div>
      <StepList
        :arm="arm"
        :cook-id="cookId"
        :next-step="nextStep"
        @tick="(id, done) => $emit('tick', id, done)"
        @length="(id, lasts) => $emit('length', id, lasts)"
      />
    </div>
  </section>
</template>

<style scoped>
.arm {
  padding: 18px 22px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
}
.open {
  margin-left: auto;
  text-decoration: underline !important;
  text-underline-offset: 3px;
  font-size: 15px;
}
p {
  margin: 4px 0 0;
  font-size: 15px;
}
.body {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  gap: 22px;
  margin-top: 10px;
}
.big {
  font-size: 26px;
  line-height: 1.1;
  margin-top: 10px;
}
.problem {
  color: var(--stop);
}
@media (max-width: 720px) {
  .arm {
    padding: 16px;
  }
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .seen {
    display: grid;
    grid-template-columns: 196px minmax(0, 1fr);
    align-items: center;
    gap: 14px;
  }
}
</style>
