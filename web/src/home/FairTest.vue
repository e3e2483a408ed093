<script setup lang="ts">
import type { Schemas } from '../api/client'

/** Is it a fair test? What the pieces share, and what differs besides the seasoning. */
defineProps<{ fair: Schemas['FairTest'] }>()
defineEmits<{ even: [what: string] }>()
</script>

<template>
  <section class="plate fair" aria-labelledby="fair">
    <div>
      <h2 id="fair">Is it a fair test?</h2>
      <p class="muted">one thing should differ: how it was seasoned</p>
    </div>
    <div>
      <p v-for="difference in fair.differs" :key="difference.what">
        <b class="caution">Differs</b> {{ difference.sentence }}
        <button v-if="difference.can_even" type="button" class="link" @click="$emit('even', difference.what)">
          Even it out
        </button>
      </p>
      <p v-if="!fair.differs.length"><b class="same">Fair so far.</b> Nothing recorded differs but the seasoning.</p>
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
@media (max-width: 900px) {
  .fair {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s-8);
  }
}
</style>
