<script setup lang="ts">
import { computed, ref } from 'vue'

/** Words of a plate: those that are ready, and own ones. */
const props = defineProps<{ words: string[]; code: string }>()
const said = defineModel<string[]>({ required: true })
const own = ref('')
const MOST = 12
const all = computed(() => [...new Set([...props.words, ...said.value])])
function toggle(word: string) {
  said.value = said.value.includes(word)
    ? said.value.filter((one) => one !== word)
    : [...said.value, word].slice(0, MOST)
}
function add() {
  const word = own.value.trim().slice(0, 30)
  if (word && !said.value.includes(word)) toggle(word)
  own.value = ''
}
</script>

<template>
  <fieldset>
    <legend><b>Words</b> <span class="muted">what comes to mind</span></legend>
    <div class="words">
      <button
        v-for="word in all"
        :key="word"
        type="button"
        :class="{ on: said.includes(word) }"
        :aria-pressed="said.includes(word)"
        :aria-label="`${word}, of ${code}`"
        @click="toggle(word)"
      >
        {{ word }}
      </button>
      <input
        v-model="own"
        :aria-label="`A word of your own for ${code}`"
        placeholder="own word"
        maxlength="30"
        @keydown.enter.prevent="add"
        @blur="add"
      />
    </div>
  </fieldset>
</template>

<style scoped src="./targets.css"></style>
<style scoped>
.words {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
button {
  background: var(--tint) !important;
  border-radius: 999px;
  padding: 0 var(--s-14) !important;
  min-height: 40px;
  font-size: var(--t-m) !important;
}
button.on {
  background: var(--cobalt) !important;
  color: var(--on-cobalt) !important;
  font-weight: 600 !important;
}
input {
  width: 110px !important;
  flex: 1 1 100px;
}
@media (max-width: 720px) {
  button {
    min-height: 44px;
  }
}
</style>
