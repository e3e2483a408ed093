<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'

/** Is it a fair test? What the pieces share, what changes besides the one thing that is asked, and how to mend it. */
const props = defineProps<{ fair: Schemas['FairTest']; compact?: boolean; taps?: boolean; crosses?: boolean }>()
defineEmits<{ even: [what: string]; cross: [] }>()
const two = computed(() => props.fair.changes.length > 1)
</script>

<template>
  <section class="plate fair" :class="{ compact }" aria-labelledby="fair">
    <div>
      <h2 id="fair">Is it a fair test?</h2>
      <p class="muted">one thing should differ: how it was seasoned</p>
    </div>
    <div>
      <template v-if="two">
        <p>
          <b class="caution">Changes {{ fair.changes.length === 2 ? 'two' : fair.changes.length }} things.</b>
          {{ fair.changes.map((change) => change.sentence).join(' ') }} Whichever wins, it may be for either.
        </p>
        <p>
          {{ fair.clean }}
          <template v-if="taps && fair.can_clean">
            <button type="button" class="link" @click="$emit('even', 'layers on both')">Put it on both</button>
            <button type="button" class="link" @click="$emit('even', 'layers off')">Leave it off</button>
          </template>
        </p>
        <p v-if="fair.two_by_two.length">
          A two-by-two answers both: {{ fair.two_by_two.join('; ') }}.
          <button v-if="crosses" type="button" class="link" @click="$emit('cross')">Make it one</button>
        </p>
      </template>
      <p v-for="difference in fair.differs" :key="difference.sentence">
        <b class="caution">Differs</b> {{ difference.sentence }}
        <button v-if="taps && difference.can_even" type="button" class="link" @click="$emit('even', difference.what)">
          {{ difference.what === 'weight' ? 'Deal them out by lot' : 'Even it out' }}
        </button>
      </p>
      <p v-if="!fair.changes.length">
        <b class="caution">Seasoned alike</b> so far: nothing differs that could be tasted.
      </p>
      <p v-else-if="!fair.differs.length && !two">
        <b class="same">Fair so far.</b> Nothing recorded differs but the seasoning.
      </p>
      <p v-if="fair.same.length"><b class="same">Same</b> {{ fair.same.join(', ') }}.</p>
      <p v-if="fair.unknown.length" class="muted"><b>Not recorded yet</b> {{ fair.unknown.join(', ') }}.</p>
    </div>
  </section>
</template>

<style scoped>
.fair {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: var(--s-24);
  padding: var(--s-20) var(--s-24);
}
p {
  margin: var(--s-2) 0 var(--s-4);
  font-size: var(--t-m);
}
.caution {
  color: var(--caution);
}
.same {
  color: var(--link);
}
.link {
  font-weight: 600;
  padding: 0 var(--s-4);
}
.compact {
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-8);
}
@media (max-width: 900px) {
  .fair {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s-8);
  }
}
</style>
