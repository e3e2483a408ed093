<script setup lang="ts">
import { mdiCheck, mdiHelp, mdiMinus } from '@mdi/js'
import { ref } from 'vue'
import { useCatalogue } from '../api/catalogue'
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'
import GrainDot from '../draw/GrainDot.vue'
import Field from '../kit/Field.vue'
import Offers from '../kit/Offers.vue'
import AddLine from './AddLine.vue'

/** One thing that a line of a pasted list names: what was understood of it, and what is asked. */
type Answer = Schemas['AnswerDocument']
type Item = Schemas['ItemOut']
defineProps<{ item: Item; error?: string; given?: Answer }>()
const emit = defineEmits<{ answer: [said: Partial<Answer>] }>()
const { grinds } = useCatalogue()
const choosing = ref(false)
const amount = ref('')
function chose(said: Partial<Answer>) {
  emit('answer', said)
  choosing.value = false
}
const always = ref('')
/** Keep what the household calls a thing: it is understood by that name from then on. */
const remember = useChange('own names', async ({ called, grind }: Item) => {
  await call(api.PUT('/api/shelf/own-names', { body: { name: called.slice(0, 60), means: grind } }))
  always.value = called
})
const off = (item: Item) => (item.error > 0.1001 ? `, ±${Math.round(item.error * 100)} %` : '')
const marks = { understood: mdiCheck, 'left out': mdiMinus, what: mdiHelp, 'how much': mdiHelp } as const
</script>

<template>
  <div class="item" :class="`is-${item.status.replace(' ', '-')}`">
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
      <button v-if="item.status !== 'left out'" type="button" @click="choosing = !choosing">
        {{ item.grind || item.blend ? 'It is something else' : 'Choose' }}
      </button>
      <button type="button" @click="emit('answer', { leave_out: item.status !== 'left out' })">
        {{ item.status === 'left out' ? 'Take it after all' : 'Leave out' }}
      </button>
    </span>
    <div v-if="item.question && item.status !== 'left out'" class="ask">
      <p>{{ item.question }}</p>
      <Offers
        v-if="item.status === 'what'"
        :offers="item.closest.map(({ grind, name }) => ({ key: grind, text: name }))"
        likely
        @take="emit('answer', { grind: $event, blend: null })"
      />
      <Offers
        :offers="item.usual.map((size) => ({ key: size, text: size }))"
        @take="emit('answer', { amount: $event })"
      />
      <form v-if="item.status === 'how much' || !item.says" class="much" @submit.prevent="emit('answer', { amount })">
        <Field
          :model-value="amount"
          :label="`How much ${item.name}`"
          hidden-label
          placeholder="2 tsp, 10 g"
          :error="error"
          @update:model-value="amount = $event"
        />
        <v-btn type="submit" :disabled="!amount.trim()">Set</v-btn>
      </form>
    </div>
    <p v-if="item.grind && item.called && given?.grind === item.grind" class="always">
      <button v-if="always !== item.called" type="button" @click="remember(item)">
        Always read “{{ item.called }}” so
      </button>
      <span v-else role="status">“{{ item.called }}” is read so from now on.</span>
    </p>
    <p v-if="item.problem" class="says" role="alert">{{ item.problem }}</p>
    <AddLine
      v-if="choosing"
      class="adder"
      :taken="[]"
      own=""
      @grind="(key, found) => chose({ grind: key, blend: null, ...(found ? { amount: found } : {}) })"
      @inside="(id, found) => chose({ grind: '', blend: id, ...(found ? { amount: found } : {}) })"
    />
  </div>
</template>

<style scoped>
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
.much {
  display: flex;
  gap: var(--s-8);
  max-width: 260px;
}
.much .field {
  flex: 1 1 auto;
}
.much :deep(.v-field) {
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
  .always button {
    min-height: 44px;
  }
}
</style>
