<script setup lang="ts">
import { ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'

/** What a packet prints, pasted as it is: its panel is read into the fields. */
type Panel = Schemas['Panel']
const emit = defineEmits<{ read: [found: Partial<Panel>]; whole: [found: Panel] }>()
const text = ref('')
const says = ref('')
async function read() {
  if (!text.value.trim()) return
  try {
    const found = await call(api.POST('/api/shelf/packet', { body: { text: text.value.slice(0, 4000) } }))
    const { portion, sodium, salt, sugars, fat, carbohydrate, protein } = found
    const panel = { portion, sodium, salt, sugars, fat, carbohydrate, protein }
    const count = Object.values(panel).filter(Boolean).length
    says.value = count ? `${count} of 7 fields are read; check them.` : 'No panel is found in this; write it in below.'
    emit('read', panel)
    emit('whole', found)
  } catch (failure) {
    says.value = sentenceOf(failure)
  }
}
</script>

<template>
  <div class="packet">
    <label>
      <span>Paste what the packet prints</span>
      <textarea
        v-model="text"
        rows="3"
        spellcheck="false"
        placeholder="Per 100 g: fat 5 g, salt 12 g …"
        @change="read"
      />
    </label>
    <p v-if="says" class="muted" role="status">{{ says }}</p>
  </div>
</template>

<style scoped>
label {
  display: grid;
  gap: 4px;
}
span {
  font-size: 13px;
  color: var(--muted);
}
textarea {
  font: inherit;
  color: var(--ink);
  background: var(--tint);
  border: 1.5px solid transparent;
  border-radius: 10px;
  padding: 8px 12px;
  width: 100%;
  resize: vertical;
}
p {
  margin: 4px 0 0;
  font-size: 14px;
}
</style>
