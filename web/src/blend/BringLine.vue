<script setup lang="ts">
import { mdiCheck, mdiHelp, mdiMinus } from '@mdi/js'
import { ref } from 'vue'
import type { Schemas } from '../api/client'
import Field from '../ui/Field.vue'
import GrainDot from '../ui/GrainDot.vue'
import { useCatalogue } from '../ui/catalogue'
import AddLine from './AddLine.vue'

/** One line of a pasted list: what it says, what was understood of it, and what is asked. */
type Answer = Schemas['AnswerDocument']
defineProps<{
  line: Schemas['ListLineOut']
  errorOf: (item: number) => string
  given: (item: number) => Answer | undefined
}>()
const emit = defineEmits<{ answer: [item: number, said: Partial<Answer>] }>()
const { grinds } = useCatalogue()
const choosing = ref(-1)
const amounts = ref<Record<number, string>>({})
const marks = { understood: mdiCheck, 'left out': mdiMinus, what: mdiHelp, 'how much': mdiHelp } as const
</script>

<template>
  <li class="row" :class="`is-${line.status.replace(' ', '-')}`">
    <span class="no muted">{{ line.number }}</span>
    <div class="body">
      <p class="text">
        {{ line.text
        }}<small v-if="!line.items.length" class="muted">
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
          <span v-if="item.says" class="muted">{{ item.says }}</span>
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
        <p v-if="item.problem" class="says" role="alert">{{ item.problem }}</p>
        <AddLine
          v-if="choosing === at"
          class="adder"
          :taken="[]"
          own=""
          @grind="(emit('answer', at, { grind: $event, blend: null }), (choosing = -1))"
          @inside="(emit('answer', at, { grind: '', blend: $event }), (choosing = -1))"
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
  padding: 7px 0;
}
.row:first-child {
  border-top: 0;
}
.no {
  font-size: 13px;
  padding-top: 2px;
}
.text {
  margin: 0;
  font-size: 14px;
  color: var(--muted);
  overflow-wrap: anywhere;
}
.is-heading .text,
.is-remark .text {
  font-style: italic;
}
.item {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 4px;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 8px;
  min-height: 32px;
}
.note {
  flex-basis: 100%;
  font-size: 13px;
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
  font-size: 14px;
  color: var(--link);
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 4px 6px;
  min-height: 32px;
}
.ask,
.adder,
.item > .says {
  grid-column: 2 / -1;
}
.ask {
  background: var(--tint);
  border-radius: 12px;
  padding: 8px 12px;
  display: grid;
  gap: 8px;
}
.ask p {
  margin: 0;
  font-size: 15px;
}
.closest {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.closest button {
  border: 1.5px solid var(--rim);
  border-radius: 18px;
  padding: 4px 13px;
  min-height: 36px;
  background: var(--plate);
}
.much {
  display: flex;
  gap: 8px;
  max-width: 260px;
}
.much :deep(input) {
  background: var(--plate) !important;
}
.says {
  color: var(--stop);
  font-size: 14px;
  margin: 2px 0;
}
@media (max-width: 720px) {
  .item {
    grid-template-columns: 24px minmax(0, 1fr);
  }
  .acts,
  .ask,
  .adder,
  .item > .says {
    grid-column: 2;
  }
  .acts button,
  .closest button {
    min-height: 44px;
  }
}
</style>
