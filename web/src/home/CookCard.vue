<script setup lang="ts">
import { computed } from 'vue'
import { grindName, useCatalogue } from '../api/catalogue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import PieceBadge from '../draw/PieceBadge.vue'
import { say } from '../kit/notice'
import { percent } from '../kit/units'
import { cardOf, cardText } from './card'

/** A cook as one card, to print or to send as text. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ cook: Schemas['BoardOut'] }>()
const { cuts, grinds } = useCatalogue()
const { show } = usePreferences()
const card = computed(() =>
  cardOf(props.cook, show.value, {
    cut: (key) => cuts.value.get(key)?.name ?? key,
    grind: (key) => {
      const found = grinds.value.get(key)
      return found ? grindName(found) : key
    },
    percent,
  }),
)
async function copy() {
  const text = cardText(card.value)
  try {
    await navigator.clipboard.writeText(text)
    say('The card is copied as text.')
  } catch {
    say('This browser lets nothing be copied; mark the text and copy it.')
  }
}
const print = () => window.print()
</script>

<template>
  <v-dialog v-model="open" max-width="720" aria-label="Card of this cook" content-class="cook-card" scrollable>
    <article class="plate card">
      <h2>{{ card.title }}</h2>
      <p v-if="card.noted"><b>Last time:</b> {{ card.noted }}</p>
      <section v-for="piece in card.pieces" :key="piece.letter">
        <h3>
          <PieceBadge :letter="piece.letter" /> {{ piece.title }}<span class="muted">{{ piece.salt }}</span>
        </h3>
        <ol>
          <li v-for="(line, at) in piece.layers" :key="at">{{ line }}</li>
        </ol>
        <ul>
          <li v-for="(line, at) in piece.steps" :key="at">{{ line }}</li>
        </ul>
      </section>
      <div class="ways">
        <v-btn class="solid" @click="print">Print it</v-btn>
        <v-btn @click="copy">Copy as text</v-btn>
        <v-btn class="quiet" @click="open = false">Close</v-btn>
      </div>
    </article>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: var(--s-24);
}
h2 {
  margin: 0 0 var(--s-8);
}
h3 {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-10);
  align-items: center;
  margin: var(--s-16) 0 var(--s-8);
  font-size: var(--t-l);
}
h3 .muted {
  font-weight: 400;
  font-size: var(--t-m);
}
p {
  margin: 0;
  white-space: pre-line;
}
ol,
ul {
  margin: 0 0 var(--s-8);
  padding-left: var(--s-24);
  font-size: var(--t-m);
}
ul {
  list-style: none;
  padding-left: 0;
  border-left: 2px solid var(--line-strong);
}
ul li {
  padding: var(--s-2) var(--s-12);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
  margin-top: var(--s-16);
}
@media print {
  .ways {
    display: none;
  }
}
</style>

<style>
/* on paper there is nothing but the card */
@media print {
  body:has(.cook-card) > :not(.v-overlay-container) {
    display: none;
  }
  .v-overlay-container:has(.cook-card) :is(.v-overlay, .v-overlay__content) {
    position: static;
    max-height: none;
    max-width: none;
    width: auto;
    margin: 0;
    overflow: visible;
  }
  .v-overlay-container:has(.cook-card) .v-overlay__scrim {
    display: none;
  }
  .cook-card .card {
    box-shadow: none;
    border: 0;
    background: #fff;
    color: #000;
  }
}
</style>
