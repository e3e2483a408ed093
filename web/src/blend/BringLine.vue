<script setup lang="ts">
import { mdiCheck, mdiHelp, mdiMinus } from '@mdi/js'
import { computed, ref } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import Field from '../kit/Field.vue'
import GrainDot from '../draw/GrainDot.vue'
import { useCatalogue } from '../api/catalogue'
import AddLine from './AddLine.vue'

/** One line of a pasted list: what it says, what was understood of it, and what is asked. */
type Answer = Schemas['AnswerDocument']
const props = defineProps<{
  line: Schemas['ListLineOut']
  errorOf: (item: number) => string
  given: (item: number) => Answer | undefined
}>()
const emit = defineEmits<{ answer: [item: number, said: Partial<Answer>] }>()
const { grinds } = useCatalogue()
const choosing = ref(-1)
const amounts = ref<Record<number, string>>({})
/** The line cut where words of it were not used. */
const cutUp = computed(() => {
  const found: { text: string; unread: boolean }[] = []
  let at = 0
  const spans = props.line.items.flatMap((item) => item.unread).sort((a, b) => a[0] - b[0])
  for (const [from, to] of spans) {
    if (from < at) continue
    found.push({ text: props.line.text.slice(at, from), unread: false })
    found.push({ text: props.line.text.slice(from, to), unread: true })
    at = to
  }
  return [...found, { text: props.line.text.slice(at), unread: false }].filter((part) => part.text)
})
function chose(at: number, said: Partial<Answer>) {
  emit('answer', at, said)
  choosing.value = -1
}
const always = ref('')
/** Keep what the household calls a thing: it is understood by that name from then on. */
const remember = useChange('own names', async (item: Schemas['ItemOut']) => {
  await call(api.PUT('/api/shelf/own-names', { body: { name: item.called.slice(0, 60), means: item.grind } }))
  always.value = item.called
})
const off = (item: Schemas['ItemOut']) => (item.error > 0.1001 ? `, ±${Math.round(item.error * 100)} %` : '')
const marks = { understood: mdiCheck, 'left out': mdiMinus, what: mdiHelp, 'how much': mdiHelp } as const
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
      <div v-for="(item, at) in line.items" :key="at" class="item" :class="`is-${item.status.replace(' ', '-')}`">
        <v-icon :icon="marks[item.status]" size="18" :aria-label="item.status" />
        <span class="what">
          <GrainDot
            v-if="grinds.get(item.grind)"
            :bands="[{ of: grinds.get(item.grind)!, name: '', share: 1 }]"
            :size="22"
          />
          <b>{{ item.name }}</b>
          <span v-if="item.weighs" class="muted">{{ item.weighs }} · {{ item.spoons }}{{ off(item) }}</span>
          <span v-else-if="item.says" class="muted">{{ item.says }}</span>
          <small v-if="item.swap && item.status === 'understood'" class="muted note"
            >or {{ item.swap }}: kept to swap</small
          >
          <small v-for="use in item.uses" :key="use" class="muted note">also: {{ use }}</small>
          <small v-if="item.note" class="muted note">{{ item.note }}</small>
        </span>
        <span class="acts">
          <button v-if="item.status !== 'left out'" type="button" @click="choosing = choosing === at ? -1 : at">
            {{ item.grind || item.blend ? 'It is something else' : 'Choose' }}
          </button>
          <button type="button" @click="emit('answer', at, { leave_out: item.status !== 'left out' })">
            {{ item.status === 'left out' ? 'Take it after all' : 'Leave out' }}
          </button>
        </span>
        <div v-if="item.question && item.status !== 'left out'" class="ask">
          <p>{{ item.question }}</p>
          <div v-if="item.status === 'what' && item.closest.length" class="closest">
            <button
              v-for="one in item.closest"
              :key="one.grind"
              type="button"
              @click="emit('answer', at, { grind: one.grind, blend: null })"
            >
              {{ one.name }}
            </button>
          </div>
          <div v-if="item.usual.length" class="closest">
            <button v-for="size in item.usual" :key="size" type="button" @click="emit('answer', at, { amount: size })">
              {{ size }}
            </button>
          </div>
          <form
            v-if="item.status === 'how much' || !item.says"
            class="much"
            @submit.prevent="emit('answer', at, { amount: amounts[at] ?? '' })"
          >
            <Field
              :model-value="amounts[at] ?? ''"
              :label="`How much ${item.name}`"
              hidden-label
              placeholder="2 tsp, 10 g"
              :error="errorOf(at)"
              @update:model-value="amounts[at] = $event"
            />
            <v-btn type="submit" :disabled="!amounts[at]?.trim()">Set</v-btn>
          </form>
        </div>
        <p v-if="item.grind && item.called && given(at)?.grind === item.grind" class="always">
          <button v-if="always !== item.called" type="button" @click="remember(item)">
            Always read “{{ item.called }}” so
          </button>
          <span v-else role="status">“{{ item.called }}” is read so from now on.</span>
        </p>
        <p v-if="item.problem" class="says" role="alert">{{ item.problem }}</p>
        <AddLine
          v-if="choosing === at"
          class="adder"
          :taken="[]"
          own=""
          @grind="(key, amount) => chose(at, { grind: key, blend: null, ...(amount ? { amount } : {}) })"
          @inside="(id, amount) => chose(at, { grind: '', blend: id, ...(amount ? { amount } : {}) })"
        />
      </div>
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
.item {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 var(--s-4);
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s-8);
  min-height: 32px;
}
.note {
  flex-basis: 100%;
  font-size: var(--t-xs);
}
.is-understood > .v-icon {
  color: var(--link);
}
.item.is-what > .v-icon,
.item.is-how-much > .v-icon {
  color: var(--caution);
}
.is-left-out .what {
  text-decoration: line-through;
  color: var(--muted);
}
.acts button {
  font-size: var(--t-s);
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: var(--s-4) var(--s-6);
  min-height: 32px;
}
.ask,
.adder,
.always,
.item > .says {
  grid-column: 2 / -1;
}
.always {
  margin: 0;
  font-size: var(--t-s);
}
.always button {
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: var(--s-4) 0;
}
.ask {
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-8) var(--s-12);
  display: grid;
  gap: var(--s-8);
}
.ask p {
  margin: 0;
  font-size: var(--t-m);
}
.closest {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
.closest button {
  border: 1.5px solid var(--rim);
  border-radius: 18px;
  padding: var(--s-4) var(--s-14);
  min-height: 36px;
  background: var(--plate);
}
.much {
  display: flex;
  gap: var(--s-8);
  max-width: 260px;
}
.much :deep(input) {
  background: var(--plate);
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: var(--s-2) 0;
}
@media (max-width: 720px) {
  .item {
    grid-template-columns: 24px minmax(0, 1fr);
  }
  .acts,
  .ask,
  .adder,
  .always,
  .item > .says {
    grid-column: 2;
  }
  .acts button,
  .always button,
  .closest button {
    min-height: 44px;
  }
}
</style>
