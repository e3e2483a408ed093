<script setup lang="ts">
import { computed, ref } from 'vue'
import { bandsOfShares } from '../blend/bands'
import { useCatalogue } from '../api/catalogue'
import CautionList from '../kit/CautionList.vue'
import JarDrawing from '../draw/JarDrawing.vue'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'
import Select from '../kit/Select.vue'
import TastePlate from './TastePlate.vue'
import { scaleHere } from './useBatch'
import { sure } from '../kit/sure'

/** All is in the bowl: what it came to, the steps that are left, the jar, and tasting. */
const bench = scaleHere()
const batch = computed(() => sure(bench.batch.value))
const { show } = usePreferences()
const { catalogue, grinds } = useCatalogue()
const bands = computed(() => {
  const whole = batch.value.poured_g || 1
  return batch.value.lines.flatMap((line) =>
    bandsOfShares(line.bands, grinds.value).map((band) => ({ ...band, share: (band.share * line.poured_g) / whole })),
  )
})
const sizes = computed(() => catalogue.value?.jars_ml ?? [])
const size = ref(0)
const chosen = computed({
  get: () => size.value || (batch.value.jar_fit?.jar_ml ?? 250),
  set: (to) => (size.value = to),
})
const mixed = computed(() => batch.value.state === 'mixed')
</script>

<template>
  <div class="mixed">
    <section class="answer">
      <div>
        <p class="big">
          <Why v-if="batch.salt" :figure="batch.salt" of="Salt as it was weighed"
            >{{ percent(batch.salt.value) }} salt</Why
          >
        </p>
        <p>
          as it was really weighed, {{ show.mass(batch.poured_g) }}; the ratio wants
          {{ percent(batch.salt_wanted?.value ?? 0) }}.
          <template v-if="Math.abs(batch.finished_g - batch.poured_g) > 0.05"
            >Its method leaves {{ show.mass(batch.finished_g) }}.</template
          >
        </p>
      </div>
      <JarDrawing :bands="bands" :full="batch.jar?.full ?? batch.jar_fit?.full.value ?? 80" :name="batch.name" />
    </section>
    <section v-if="batch.steps.length && !mixed" class="plate steps" aria-label="Method">
      <h2>Now</h2>
      <ol>
        <li v-for="step in batch.steps" :key="step">{{ step }}</li>
      </ol>
    </section>
    <CautionList v-if="batch.jar" :cautions="batch.jar.cautions" />
    <form v-if="!mixed" class="jar" @submit.prevent="bench.finish(chosen)">
      <Select v-model="chosen" label="Jar" :options="sizes.map((ml) => ({ value: ml, title: show.volume(ml) }))" />
      <v-btn type="submit" class="solid">Put it on the shelf</v-btn>
    </form>
    <p v-else class="done" role="status">
      On the shelf, {{ show.mass(batch.jar?.left_g ?? 0) }} in {{ show.volume(batch.jar?.size_ml ?? 0) }}.
      <router-link to="/shelf">To the shelf</router-link>
    </p>
    <TastePlate v-if="mixed" />
  </div>
</template>

<style scoped>
.mixed {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-16);
}
.answer {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-20);
  padding: var(--s-20) var(--s-24);
}
.answer p {
  margin: 0;
  color: var(--on-deep-soft);
}
.answer .big {
  font-size: var(--t-huge);
  color: #fff;
}
.steps {
  padding: var(--s-14) var(--s-20);
}
ol {
  margin: var(--s-6) 0 0;
  padding-left: var(--s-24);
}
.jar {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-14);
  align-items: end;
}
.jar label {
  font-size: var(--t-s);
  color: var(--muted);
  display: grid;
  gap: var(--s-4);
  width: 150px;
}
.jar .v-btn {
  min-height: 52px;
  border-radius: 26px;
  font-size: var(--t-xl);
}
.done {
  margin: 0;
}
</style>
