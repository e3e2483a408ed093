<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useQuestion } from '../api/question'

/** What a packet prints, pasted as it is: its panel is read into the fields. */
type Panel = Schemas['Panel']
const emit = defineEmits<{ read: [found: Partial<Panel>]; whole: [found: Panel] }>()
const text = ref('')
const panelOf = ({ portion, sodium, salt, sugars, fat, carbohydrate, protein }: Panel) => ({
  portion, sodium, salt, sugars, fat, carbohydrate, protein,
}) // prettier-ignore
const {
  answer,
  says: failed,
  ask,
} = useQuestion<Panel>({
  after: 250,
  ask: (signal) => call(api.POST('/api/shelf/packet', { body: { text: text.value.slice(0, 4000) }, signal })),
  came: (found) => {
    emit('read', panelOf(found))
    emit('whole', found)
  },
})
const says = computed(() => {
  if (failed.value || !answer.value) return failed.value
  const count = Object.values(panelOf(answer.value)).filter(Boolean).length
  return count ? `${count} of 7 fields are read; check them.` : 'No panel is found in this; write it in below.'
})
watch(text, (now) => now.trim() && ask())
</script>

<template>
  <div class="packet">
    <label>
      <span>Paste what the packet prints</span>
      <textarea v-model="text" rows="3" spellcheck="false" placeholder="Per 100 g: fat 5 g, salt 12 g …" />
    </label>
    <p v-if="says" class="muted" role="status">{{ says }}</p>
  </div>
</template>

<style scoped>
label {
  display: grid;
  gap: var(--s-4);
}
span {
  font-size: var(--t-xs);
  color: var(--muted);
}
p {
  margin: var(--s-4) 0 0;
  font-size: var(--t-s);
}
</style>
