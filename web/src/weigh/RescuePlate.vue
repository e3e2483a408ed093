<script setup lang="ts">
import type { Schemas } from '../api/client'
import { percent } from '../kit/units'
import Why from '../kit/Why.vue'

/** Too much went in: the three ways out, each with what it does to the batch and its salt. */
defineProps<{ rescues: Schemas['Rescue'][]; name: string }>()
const emit = defineEmits<{ scaleUp: []; accept: []; spoonOut: [] }>()
const titles: Record<string, string> = {
  'scale up': 'Scale the batch up',
  accept: 'Leave it as it is',
  'spoon out': 'Spoon it out',
}
function choose(id: string) {
  if (id === 'scale up') emit('scaleUp')
  else if (id === 'accept') emit('accept')
  else emit('spoonOut')
}
</script>

<template>
  <section class="plate rescue" aria-label="Put it right">
    <h2>Too much {{ name }}: three ways out</h2>
    <ul>
      <li v-for="way in rescues" :key="way.id">
        <button type="button" @click="choose(way.id)">
          <b>{{ titles[way.id] }}</b>
          <span>{{ way.says }}</span>
        </button>
        <span class="salt muted" :class="{ stays: Math.abs(way.salt_after - way.salt_before) < 0.05 }"
          >salt
          <Why :figure="way.figure" :of="titles[way.id] ?? way.id"
            >{{ percent(way.salt_before) }} → {{ percent(way.salt_after) }}</Why
          ></span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.rescue {
  padding: var(--s-16) var(--s-20);
  border-color: var(--caution);
}
ul {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: var(--s-4) var(--s-14);
  border-top: 1px solid var(--line);
}
button {
  text-align: left;
  padding: var(--s-10) var(--s-8);
  min-height: 60px;
  display: grid;
  border-radius: 10px;
  line-height: 1.3;
}
button:hover,
button:focus-visible {
  background: var(--tint);
}
button b {
  font-size: var(--t-xl);
}
.salt {
  font-size: var(--t-s);
  white-space: nowrap;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: var(--s-8);
  }
  .salt {
    padding-left: var(--s-8);
  }
  .stays {
    display: none;
  }
  .rescue {
    padding: var(--s-12) var(--s-16);
  }
  button {
    padding: var(--s-6) var(--s-8);
  }
}
</style>
