<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, call, within, type Schemas } from '../api/client'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { useQuestion } from '../api/question'
import PacketText from '../shelf/PacketText.vue'
import LabelNames from './LabelNames.vue'
import type { Doc } from './useBlend'

/** A bought blend's label as it is typed, and what it tells: every ingredient with the range its share may have. */
type Label = Schemas['LabelDocument']
const label = defineModel<Label>('label', { required: true })
const ingredients = defineModel<string>('ingredients', { required: true })
const props = defineProps<{ kind: Doc['kind']; batch: string; chosen?: Record<string, string> }>()
const emit = defineEmits<{ read: [found: Schemas['LabelOut'] | null] }>()

const question = useQuestion({
  after: 250,
  ask: (signal) => {
    const asked = { label: label.value, ingredients: ingredients.value, chosen: said.value }
    return call(api.POST('/api/blends/label', { body: { ...asked, kind: props.kind, batch: props.batch }, signal }))
  },
  came: (found) => emit('read', found),
})
const found = question.answer
const errors = computed<Record<string, string>>(() => {
  const byPlace = { ...question.errors.value, ...within(question.errors.value, 'label.') }
  return question.failure.value && !Object.keys(byPlace).length ? { ingredients: question.says.value } : byPlace
})
watch(question.failure, (why) => why && emit('read', null))
const said = ref<Record<string, string>>({ ...props.chosen })
const set = (part: Partial<Label>) => (label.value = { ...label.value, ...part })

const ready = computed(() => !!(label.value.portion.trim() && label.value.sodium.trim() && ingredients.value.trim()))
function ask() {
  if (ready.value) return void question.ask()
  question.clear()
  emit('read', null)
}
const typed = computed(() => {
  const { portion, sodium, sodium_as, sugars, fat, rule } = label.value
  return JSON.stringify([portion, sodium, sodium_as, sugars, fat, rule, ingredients.value, props.kind, said.value])
})
watch(typed, ask, { immediate: true })

/** Take over what the packet's text says, as far as it does. */
function fromPacket(found: Schemas['Panel']) {
  const salt = !found.sodium && !!found.salt
  set({
    portion: found.portion || label.value.portion,
    sodium: found.sodium || found.salt || label.value.sodium,
    sodium_as: salt ? 'salt' : 'sodium',
    sugars: found.sugars || label.value.sugars,
    fat: found.fat || label.value.fat,
    rule: found.rule === 'eu' ? 'eu' : 'us',
  })
  ingredients.value = found.ingredients || ingredients.value
}
function choose(name: string, grind: string) {
  said.value = { ...said.value, [name]: grind }
}
</script>

<template>
  <div class="form">
    <PacketText @whole="fromPacket" />
    <div class="panel">
      <Field
        :model-value="label.portion"
        label="A portion is"
        placeholder="¼ tsp (1 g)"
        :error="errors.portion"
        @update:model-value="set({ portion: $event })"
      />
      <Choice
        :model-value="label.sodium_as"
        label="The panel names"
        :options="[
          { value: 'sodium', text: 'sodium' },
          { value: 'salt', text: 'salt' },
        ]"
        @update:model-value="set({ sodium_as: $event as Label['sodium_as'] })"
      />
      <Field
        :model-value="label.sodium"
        :label="label.sodium_as === 'salt' ? 'Salt in it' : 'Sodium in it'"
        :placeholder="label.sodium_as === 'salt' ? '0.6 g' : '230 mg'"
        :error="errors.sodium"
        @update:model-value="set({ sodium: $event })"
      />
      <Field
        :model-value="label.sugars ?? ''"
        label="Sugars in it"
        placeholder="0 g"
        :error="errors.sugars"
        @update:model-value="set({ sugars: $event })"
      />
      <Field
        :model-value="label.fat ?? ''"
        label="Fat in it"
        placeholder="0 g"
        :error="errors.fat"
        @update:model-value="set({ fat: $event })"
      />
      <Choice
        :model-value="label.rule"
        label="Rounded as in"
        :options="[
          { value: 'us', text: 'the US' },
          { value: 'eu', text: 'the EU' },
        ]"
        @update:model-value="set({ rule: $event as Label['rule'] })"
      />
    </div>
    <div class="list">
      <label for="label-ingredients">Ingredients, in the order they stand on the label</label>
      <textarea
        id="label-ingredients"
        v-model="ingredients"
        rows="3"
        spellcheck="false"
        :aria-invalid="!!errors.ingredients"
        placeholder="Salt, sugar, paprika, spices, dehydrated garlic, contains 2 % or less of: silicon dioxide"
      />
      <p v-if="errors.ingredients || errors.lines" class="says" role="alert">
        {{ errors.ingredients ?? errors.lines }}
      </p>
    </div>
    <LabelNames v-if="found" :names="found.names" @choose="choose" />
    <p v-for="note in found?.reading?.notes" :key="note" class="says" role="alert">{{ note }}</p>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: var(--s-14);
}
.panel {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-10) var(--s-14);
  align-items: start;
}
.list {
  display: grid;
  gap: var(--s-4);
}
.list label {
  font-size: var(--t-xs);
  color: var(--muted);
}
textarea {
  font: inherit;
  color: var(--ink);
  background: var(--tint);
  border: 1.5px solid transparent;
  border-radius: 10px;
  padding: var(--s-8) var(--s-12);
  width: 100%;
  resize: vertical;
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: 0;
}
@media (max-width: 720px) {
  .panel {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
