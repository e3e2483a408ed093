<script setup lang="ts">
import { ref, watch } from 'vue'
import Field from '../kit/Field.vue'

/** Ask for a note, or for the name of a branch, before something is kept. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{
  title: string
  says: string
  label: string
  value: string
  act: string
  needed?: boolean
}>()
const emit = defineEmits<{ done: [text: string] }>()
const text = ref('')
watch(open, (now) => now && (text.value = props.value))
function done() {
  if (props.needed && !text.value.trim()) return
  open.value = false
  emit('done', text.value.trim())
}
</script>

<template>
  <v-dialog v-model="open" max-width="460" :aria-label="title">
    <form class="plate keep" @submit.prevent="done">
      <h2>{{ title }}</h2>
      <p class="muted">{{ says }}</p>
      <Field v-model="text" :label="label" autofocus />
      <div class="ways">
        <v-btn type="submit" class="solid" :disabled="needed && !text.trim()">{{ act }}</v-btn>
        <v-btn class="quiet" @click="open = false">Leave it</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.keep {
  padding: var(--s-24) var(--s-24);
  display: grid;
  gap: var(--s-12);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.ways {
  display: flex;
  gap: var(--s-10);
}
</style>
