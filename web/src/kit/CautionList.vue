<script setup lang="ts">
import { mdiAlert, mdiInformationOutline, mdiOctagon } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { unbroken } from './units'

/**
 * Cautions in plain sentences, a word and an icon each, most serious first. `only` takes the stops out to where they
 * cannot be scrolled past unseen; those of one `layer` stand at its step, and nowhere else.
 */
const props = defineProps<{
  cautions: Schemas['Caution'][]
  only?: 'stops' | 'others'
  layer?: number | null
  /** After how many the rest is folded away. */
  most?: number
}>()
const whole = ref(false)
const RANK = { stop: 0, caution: 1, note: 2 }
const all = computed(() =>
  props.cautions.filter(
    (caution) =>
      (caution.layer ?? null) === (props.layer ?? null) &&
      (!props.only || (caution.level === 'stop') === (props.only === 'stops')),
  ),
)
const ranked = computed(() => [...all.value].sort((a, b) => RANK[a.level] - RANK[b.level]))
const shown = computed(() => (whole.value || !props.most ? ranked.value : ranked.value.slice(0, props.most)))
const looks = {
  stop: { word: 'Stop', icon: mdiOctagon },
  caution: { word: 'Caution', icon: mdiAlert },
  note: { word: 'Note', icon: mdiInformationOutline },
}
</script>

<template>
  <ul v-if="shown.length" class="cautions" :class="only">
    <li v-for="caution in shown" :key="caution.sentence" :class="caution.level" :data-rule="caution.id">
      <v-icon :icon="looks[caution.level].icon" size="18" aria-hidden="true" />
      <p>
        <b>{{ looks[caution.level].word }}</b> {{ unbroken(caution.sentence) }}
        <span>{{ unbroken(caution.action) }}</span>
      </p>
    </li>
    <li v-if="ranked.length > shown.length || (whole && most)" class="fold">
      <button type="button" class="link" :aria-expanded="whole" @click="whole = !whole">
        {{ whole ? 'Only the first' : `${ranked.length - shown.length} more` }}
      </button>
    </li>
  </ul>
</template>

<style scoped>
.cautions {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: var(--s-8);
}
li {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: var(--s-8);
  font-size: var(--t-s);
  line-height: 1.4;
}
p {
  margin: 0;
}
span {
  color: var(--muted);
}
.fold {
  grid-template-columns: auto;
  justify-content: start;
}
.stop {
  border: 2px solid var(--stop);
  border-radius: 12px;
  padding: var(--s-10);
}
.stops {
  margin-bottom: var(--s-12);
  position: sticky;
  top: 8px;
  z-index: 2;
}
.stops .stop {
  background: var(--plate);
}
@media (max-width: 720px) {
  /* on a phone it would cover the work; the page's own bar says it is there */
  .stops {
    position: static;
  }
}
.stop b,
.stop .v-icon {
  color: var(--stop);
}
.caution b,
.caution .v-icon {
  color: var(--caution);
}
.note b,
.note .v-icon {
  color: var(--link);
}
</style>
