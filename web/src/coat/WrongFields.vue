<script setup lang="ts">
import { computed } from 'vue'
import { within, type Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import { fieldWords } from './reading'

/** What of a cook could not be read, and where: all else is saved and goes on. */
const props = defineProps<{ pieces: Schemas['PieceDocument'][]; errors: Record<string, string> }>()
const emit = defineEmits<{ open: [at: number] }>()

const own = computed(() =>
  Object.entries(props.errors).flatMap(([field, sentence]) =>
    field.startsWith('pieces.') ? [] : [{ where: fieldWords(field), sentence, at: -1, letter: '' }],
  ),
)
const ofPieces = computed(() =>
  props.pieces.flatMap((piece, at) =>
    Object.entries(within(props.errors, `pieces.${at}.`)).map(([field, sentence]) => {
      const layer = /^layers\.(\d+)\./.exec(field)
      const kind = layer && piece.layers[Number(layer[1])]?.kind
      return { where: kind ? `${kind}, ${fieldWords(field)}` : fieldWords(field), sentence, at, letter: piece.letter }
    }),
  ),
)
const all = computed(() => [...own.value, ...ofPieces.value])
</script>

<template>
  <section v-if="all.length" class="plate wrong" role="status" aria-label="What could not be read">
    <h2>{{ all.length === 1 ? 'One field' : `${all.length} fields` }} could not be read</h2>
    <p class="muted">All else is saved. Figures that rest on {{ all.length === 1 ? 'it' : 'them' }} are from before.</p>
    <ul>
      <li v-for="one in all" :key="`${one.letter} ${one.where}`">
        <button v-if="one.at >= 0" type="button" class="link" @click="emit('open', one.at)">
          <PieceBadge :letter="one.letter" /><u>{{ one.where }}</u>
        </button>
        <b v-else>{{ one.where }}</b>
        <span>{{ one.sentence }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.wrong {
  padding: var(--s-12) var(--s-20);
  margin-bottom: var(--s-14);
  border-color: var(--stop);
}
h2 {
  font-size: var(--t-xl);
  color: var(--stop);
}
p,
ul {
  margin: var(--s-2) 0 0;
  font-size: var(--t-s);
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-2) var(--s-12);
  margin-top: var(--s-4);
}
.link {
  display: inline-flex;
  align-items: center;
  gap: var(--s-8);
  text-decoration: none;
}
.link u {
  text-underline-offset: 3px;
}
</style>
