<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import { percent } from '../kit/units'
import Offers from '../kit/Offers.vue'
import Why from '../kit/Why.vue'
import AddLine from './AddLine.vue'

/** The ingredients of a label, each with the range its share may have, and what is asked of those not known. */
defineProps<{ names: Schemas['LabelOut']['names'] }>()
const emit = defineEmits<{ choose: [name: string, grind: string] }>()
const NOBODY = { grind: 'spices-unnamed/ground', name: 'a spice nobody names' }
const choosing = ref('')
function choose(name: string, grind: string) {
  emit('choose', name, grind)
  choosing.value = ''
}
const wide = (figure: Schemas['Figure']) => ({
  left: `${figure.low ?? 0}%`,
  width: `${Math.max(1, (figure.high ?? 0) - (figure.low ?? 0))}%`,
})
</script>

<template>
  <ul>
    <li v-for="(one, at) in names" :key="at">
      <span class="what"
        ><b>{{ one.name }}</b
        ><small v-if="one.said" class="muted">{{ one.said }}{{ one.minor ? ', 2 % or less' : '' }}</small></span
      >
      <span v-if="one.share" class="bar" aria-hidden="true"
        ><i :style="wide(one.share)" /><i class="mid" :style="{ left: `${one.share.value}%` }"
      /></span>
      <span v-if="one.share" class="n"
        ><Why :figure="one.share" :of="`Share of ${one.name}`"
          >{{ percent(one.share.low ?? 0) }} to {{ percent(one.share.high ?? 0) }}</Why
        ></span
      >
      <button
        type="button"
        class="way"
        :aria-label="`${one.grind ? 'Change' : 'Choose'} what ${one.name} is`"
        @click="choosing = choosing === one.name ? '' : one.name"
      >
        {{ one.grind ? 'Change' : 'Choose' }}
      </button>
      <div v-if="!one.grind || choosing === one.name" class="ask">
        <p v-if="!one.grind">I do not know “{{ one.name }}” for sure; choose what comes closest.</p>
        <Offers
          :offers="[...one.closest, NOBODY].map(({ grind, name }) => ({ key: grind, text: name }))"
          :likely="!one.grind && one.closest.length > 0"
          @take="choose(one.name, $event)"
        />
        <AddLine :taken="[]" own="" @grind="choose(one.name, $event)" />
      </div>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(120px, 1.2fr) minmax(80px, 1fr) 142px auto;
  gap: var(--s-4) var(--s-12);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-4) 0;
}
.what {
  line-height: 1.2;
}
small {
  display: block;
  font-size: var(--t-xs);
}
.bar {
  position: relative;
  height: 12px;
  background: var(--tint);
  border-radius: 6px;
}
.bar i {
  position: absolute;
  top: 0;
  bottom: 0;
  border-radius: 6px;
  background: repeating-linear-gradient(90deg, var(--rim) 0 3px, transparent 3px 6px);
  opacity: 0.75;
}
.bar .mid {
  width: 4px;
  margin-left: -2px;
  background: var(--ink);
  opacity: 1;
}
.n {
  text-align: right;
}
.way {
  grid-column: -2;
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  font-size: var(--t-s);
  min-height: 32px;
  padding: 0 var(--s-6);
}
.ask {
  grid-column: 1 / -1;
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-8) var(--s-12);
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
  align-items: center;
}
.ask p {
  margin: 0;
  flex-basis: 100%;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .bar {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  .n {
    grid-row: 3;
    text-align: left;
  }
  .way {
    grid-column: 2;
    grid-row: 1;
  }
  .way {
    min-height: 44px;
  }
}
</style>
