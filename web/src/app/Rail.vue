<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { seeded } from '../draw/grains'
import { stations } from './stations'

defineEmits<{ keys: []; find: []; settings: [] }>()
const route = useRoute()
const here = computed(() => route.path.split('/')[1])

const random = seeded('speckle')
const specks = Array.from({ length: 90 }, () => ({
  x: random() * 104,
  y: random() * 1000,
  r: 0.5 + random() ** 3 * 2.1,
  o: 0.35 + random() * 0.5,
}))
</script>

<template>
  <nav class="rail" aria-label="Stations">
    <svg class="speckle" viewBox="0 0 104 1000" preserveAspectRatio="xMidYMin slice" aria-hidden="true">
      <circle v-for="(s, at) in specks" :key="at" :cx="s.x" :cy="s.y" :r="s.r" fill="#fff" :opacity="s.o" />
    </svg>
    <router-link to="/" class="mark" aria-label="Ravska, home">
      <img src="/mark.svg" alt="" width="22" height="22" /><span>Ravska</span>
    </router-link>
    <ol>
      <li v-for="station in stations" :key="station.key">
        <router-link
          :to="station.path"
          :class="{ here: here === station.key }"
          :aria-current="here === station.key ? 'page' : undefined"
        >
          <b>{{ station.name }}</b>
          <small>{{ station.about }}</small>
        </router-link>
      </li>
    </ol>
    <div class="tools">
      <button type="button" @click="$emit('find')">Find <kbd>/</kbd></button>
      <button type="button" @click="$emit('settings')">Units, theme</button>
      <button type="button" @click="$emit('keys')">Keys <kbd>?</kbd></button>
    </div>
  </nav>
</template>

<style scoped>
.rail {
  position: fixed;
  inset: 0 auto 0 0;
  width: 104px;
  background: var(--deep);
  color: #fff;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  z-index: 5;
}
.speckle {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.mark {
  position: relative;
  display: flex;
  gap: var(--s-6);
  align-items: center;
  padding: var(--s-16) 0 var(--s-16) var(--s-8);
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-l);
}
ol {
  position: relative;
  list-style: none;
  margin: 0;
  padding: 0 0 0 var(--s-10);
  display: grid;
  gap: var(--s-6);
}
li a {
  display: block;
  padding: var(--s-10) var(--s-8) var(--s-10) var(--s-12);
  border-radius: 16px 0 0 16px;
  line-height: 1.25;
}
/* specks never touch letters */
li a:not(.here) > *,
.mark {
  width: fit-content;
  background: var(--deep);
  box-shadow: 0 0 0 4px var(--deep);
}
li b {
  display: block;
  font-size: var(--t-l);
}
li small {
  display: block;
  font-size: var(--t-xs);
  color: #ccd6f3;
}
.here {
  background: var(--ground);
  color: var(--ink);
}
.here b {
  color: var(--ink);
  font-weight: 700;
}
.here small {
  color: var(--muted);
}
.tools {
  position: relative;
  margin-top: auto;
  padding: var(--s-10) var(--s-4);
  display: grid;
  gap: var(--s-4);
}
.tools button {
  color: #dfe6fa;
  font-size: var(--t-xs);
  text-align: left;
  padding: var(--s-6);
  border-radius: 8px;
  background: var(--deep);
}
kbd {
  border: 1px solid #8ea3dd;
  border-radius: 4px;
  padding: 0 var(--s-4);
  font: inherit;
  font-size: var(--t-xs);
}
.v-theme--iron .here {
  background: var(--tint);
}
@media (max-width: 720px) {
  .rail {
    inset: auto 0 0;
    width: 100%;
    height: 60px;
    flex-direction: row;
  }
  .speckle,
  .mark,
  .tools,
  li small {
    display: none;
  }
  ol {
    display: flex;
    width: 100%;
    padding: 0;
    gap: 0;
  }
  li {
    flex: 1;
  }
  li a {
    display: grid;
    place-items: center;
    height: 60px;
    padding: 0;
    border-radius: 14px 14px 0 0;
  }
  li b {
    font-size: var(--t-xs);
    font-weight: 600;
  }
}
</style>
