<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import ScaleRow from './ScaleRow.vue'
import type { Doc, Reading } from './useBlend'

/** How a blend reads: its scales with the earlier revision as a ghost, how long it keeps, and what it will do. */
const targets = defineModel<Doc['targets']>('targets', { required: true })
const aiming = defineModel<boolean>('aiming', { required: true })
const props = defineProps<{
  reading: Reading | null
  kind: string
  /** Its shares follow a label, so it cannot be aimed. */
  fixed?: boolean
  before: Schemas['BeforeOut'] | null
  errors: Record<string, string>
}>()

const ghosts = computed(() => new Map(props.before?.scales.map((scale) => [scale.key, scale.value])))
const ghostOf = computed(() => (props.before ? `Revision ${props.before.number}` : ''))
const ghost = (key: string) => ghosts.value.get(key) ?? null
const aimed = (key: string) => targets.value?.find((target) => target.what === key) ?? null

/** What there is none of, now, before or by a target, is said in one line. */
const shown = computed(() =>
  (props.reading?.scales ?? []).filter(
    (scale) => aiming.value || aimed(scale.key) || scale.value > 1e-6 || (ghost(scale.key) ?? 0) > 1e-6,
  ),
)
const none = computed(() =>
  (props.reading?.scales ?? [])
    .filter((scale) => !shown.value.includes(scale))
    .map((scale) => scale.label.toLowerCase()),
)

function aim(what: string, to: { low: string; high: string } | null) {
  const others = (targets.value ?? []).filter((target) => target.what !== what)
  targets.value = to ? [...others, { what: what as 'salt', ...to }] : others
}
function errorsOf(key: string) {
  const at = (targets.value ?? []).findIndex((target) => target.what === key)
  return { low: props.errors[`targets.${at}.low`], high: props.errors[`targets.${at}.high`] }
}
</script>

<template>
  <aside class="reads" aria-label="How it reads">
    <div class="answer">
      <template v-if="reading">
        <p class="big">
          <Why :figure="reading.salt" of="Salt in the blend">{{ percent(reading.salt.value) }} salt</Why>
        </p>
        <p>
          of the {{ kind }} by weight, between {{ percent(reading.salt.low ?? 0) }} and
          {{ percent(reading.salt.high ?? 0) }}
        </p>
      </template>
      <p v-else class="big">No ratio yet</p>
    </div>
    <slot />
    <section v-if="reading" class="scales" aria-label="Scales">
      <header>
        <h2>How it reads</h2>
        <v-btn v-if="!fixed" :class="{ solid: aiming }" :aria-pressed="aiming" @click="aiming = !aiming">{{
          aiming ? 'Aim done' : 'Aim it'
        }}</v-btn>
      </header>
      <p v-if="aiming" class="muted hint">
        Drag along a scale, or write at least and at most. The nearest blend is proposed at once.
      </p>
      <ScaleRow
        v-for="scale in shown"
        :key="scale.key"
        :scale="scale"
        :ghost="ghost(scale.key)"
        :ghost-of="ghostOf"
        :target="aimed(scale.key)"
        :aiming="aiming"
        :errors="errorsOf(scale.key)"
        @target="aim(scale.key, $event)"
      />
      <p v-if="none.length" class="muted hint">No {{ none.join(', no ') }}.</p>
      <slot name="cost" />
    </section>
  </aside>
</template>

<style scoped>
.reads {
  display: grid;
  gap: var(--s-16);
}
.answer {
  padding: var(--s-16) var(--s-24);
}
.answer p {
  margin: 0;
  color: var(--on-deep-soft);
  font-size: var(--t-s);
}
.answer .big {
  font-size: var(--t-big);
  line-height: 1.1;
  margin-bottom: var(--s-4);
  color: #fff;
}
.scales {
  display: grid;
  gap: var(--s-10);
  padding: 0 var(--s-6);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.hint {
  margin: 0;
  font-size: var(--t-s);
}
</style>
