<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import BringItem from './BringItem.vue'

/** One line of a pasted list: what it says, what was understood of it, and what is asked. */
type Answer = Schemas['AnswerDocument']
const props = defineProps<{
  line: Schemas['ListLineOut']
  errorOf: (item: number) => string
  given: (item: number) => Answer | undefined
}>()
const emit = defineEmits<{ answer: [item: number, said: Partial<Answer>] }>()
/** The line cut where words of it were not used. */
const cutUp = computed(() => {
  const found: { text: string; unread: boolean }[] = []
  let at = 0
  const spans = (props.line.items.flatMap((item) => item.unread) as [number, number][]).sort((a, b) => a[0] - b[0])
  for (const [from, to] of spans) {
    if (from < at) continue
    found.push({ text: props.line.text.slice(at, from), unread: false })
    found.push({ text: props.line.text.slice(from, to), unread: true })
    at = to
  }
  return [...found, { text: props.line.text.slice(at), unread: false }].filter((part) => part.text)
})
</script>

<template>
  <li class="row" :class="`is-${line.status.replace(' ', '-')}`">
    <span class="no muted">{{ line.number }}</span>
    <div class="body">
      <p class="text">
        <template v-for="(part, at) in cutUp" :key="at"
          ><mark v-if="part.unread" title="not used">{{ part.text }}</mark
          ><template v-else>{{ part.text }}</template></template
        ><small v-if="!line.items.length" class="muted">
          &nbsp;{{ line.status === 'heading' ? 'a heading' : 'a remark' }}, no ingredient</small
        >
      </p>
      <BringItem
        v-for="(item, at) in line.items"
        :key="at"
        :item="item"
        :error="errorOf(at)"
        :given="given(at)"
        @answer="emit('answer', at, $event)"
      />
    </div>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr);
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
.row:first-child {
  border-top: 0;
}
.no {
  font-size: var(--t-xs);
  padding-top: var(--s-2);
}
.text {
  margin: 0;
  font-size: var(--t-s);
  color: var(--muted);
  overflow-wrap: anywhere;
}
mark {
  background: none;
  color: var(--ink);
  text-decoration: underline wavy var(--caution);
  text-underline-offset: 4px;
}
.is-heading .text,
.is-remark .text {
  font-style: italic;
}
</style>
