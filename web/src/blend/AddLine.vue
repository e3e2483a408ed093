<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useQuestion } from '../api/question'

/** Type a name, or an amount and a name, to add a line: ingredients and one's own blends, best first. */
type Sought = Schemas['SoughtOut']
const none: Sought = { found: [], name: '', amount: '' }
/** `ingredients` offers no blends and makes nothing new. */
const props = defineProps<{ taken: string[]; own: string; error?: string; ingredients?: boolean }>()
const emit = defineEmits<{ grind: [key: string, amount: string]; inside: [id: string, amount: string] }>()

const chosen = ref<string | null>(null)
const search = ref('')
/** What the answer shown is of: an answer of something else is not taken by Enter. */
const {
  answer,
  current,
  ask,
  clear: forget,
} = useQuestion<Sought>({
  after: 60,
  ask: async (signal) => {
    const text = search.value.trim()
    return text ? call(api.POST('/api/blends/find', { body: { text }, signal })) : none
  },
  came: () => entered.value && takeFirst(),
})
const sought = computed(() => answer.value ?? none)
const moved = ref(false)
const entered = ref(false)
function type(text: string) {
  if ((text ?? '') === search.value) return
  search.value = text ?? ''
  moved.value = entered.value = false
  void ask()
}

const items = computed(() =>
  sought.value.found
    .map((one) => ({ ...one, value: one.blend ?? one.key, title: one.name }))
    // one's own is like a shipped one, never like another of one's own
    .filter((one) => !(props.ingredients && (one.blend || one.key.endsWith('/own'))))
    .filter((one) => one.value !== props.own && !props.taken.includes(one.value)),
)
const nothing = computed(() => {
  if (!search.value.trim()) return 'Type a name, such as pepper, or an amount and a name: 2 tbsp salt.'
  return current.value ? 'Not in the catalogue. Try another word for it.' : 'Looking …'
})
function takeFirst() {
  entered.value = false
  const first = items.value[0]
  if (first?.sure) void take(first.value)
}
/** Enter takes what surely is meant; what was chosen with the arrows is the box's own to take. */
function enter(event: KeyboardEvent) {
  if (moved.value || !search.value.trim()) return
  event.preventDefault()
  event.stopPropagation()
  if (current.value) takeFirst()
  else entered.value = true
}

async function take(value: string | null) {
  const one = items.value.find((item) => item.value === value)
  if (!one) return
  const { amount } = sought.value
  if (one.blend) emit('inside', one.blend, amount)
  else emit('grind', one.key, amount)
  await nextTick()
  chosen.value = null
  search.value = ''
  forget()
}
const OwnIngredient = defineAsyncComponent(() => import('../shelf/OwnIngredient.vue'))
const making = ref(false)
const called = ref('')
let amount = ''
const mayMake = computed(() => !props.ingredients && !!search.value.trim() && current.value)
function make() {
  called.value = sought.value.name
  amount = sought.value.amount
  making.value = true
}
function made(key: string) {
  emit('grind', key, amount)
  search.value = ''
  forget()
}
const box = useTemplateRef<{ focus: () => void }>('box')
defineExpose({ focus: () => box.value?.focus() })
</script>

<template>
  <div class="add">
    <v-autocomplete
      ref="box"
      v-model="chosen"
      :search="search"
      :items="items"
      no-filter
      placeholder="Add an ingredient or a blend: 2 tbsp salt"
      aria-label="Add an ingredient"
      :menu-props="{ maxHeight: 300 }"
      @update:search="type"
      @update:model-value="take"
      @keydown.enter.capture="enter"
      @keydown.down="moved = true"
      @keydown.up="moved = true"
    >
      <template v-if="mayMake" #append-item>
        <v-list-item class="make" @click="make">
          {{ items.length ? 'None of these: make' : 'Make' }} it an ingredient of your own
        </v-list-item>
      </template>
      <template #no-data>
        <v-list-item>{{ nothing }}</v-list-item>
      </template>
      <template #item="{ item, props: row }">
        <v-list-item v-bind="row" :title="undefined">
          <span class="item">
            <i v-if="item.colour" :style="{ background: item.colour }" aria-hidden="true" />
            <i v-else class="blend" aria-hidden="true" />
            <span>{{ sought.amount ? `${sought.amount} ` : '' }}{{ item.title }}</span>
            <small>{{ item.rank === 'near' ? 'did you mean this?' : item.says }}</small>
          </span>
        </v-list-item>
      </template>
    </v-autocomplete>
    <p v-if="error" class="says" role="alert">{{ error }}</p>
    <OwnIngredient v-if="making" v-model="making" :name="called" @made="made" />
  </div>
</template>

<style scoped>
.add {
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0 var(--s-4);
  max-width: 460px;
}
.add :deep(.v-field) {
  border: 1.5px dashed var(--line-strong);
}
.item {
  display: flex;
  align-items: center;
  gap: var(--s-10);
}
i {
  width: 14px;
  height: 14px;
  border-radius: 4px;
  border: 1px solid var(--line-strong);
  flex: none;
}
.blend {
  border-radius: 50%;
  border: 2px solid var(--rim);
}
small {
  color: var(--muted);
  font-size: var(--t-xs);
  margin-left: auto;
}
.make {
  color: var(--link);
  font-weight: 600;
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: var(--s-4) 0 0;
}
</style>
