<script setup lang="ts">
import { computed } from 'vue'
import { sentenceOf } from '../api/client'
import { useChange } from '../api/change'
import { kinds } from '../blend/kinds'
import { useBring } from '../blend/useBring'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import Select from '../kit/Select.vue'

/** A recipe as it is said, made a blend and put on the piece at once; what is asked is answered where lists come in. */
const emit = defineEmits<{ add: [what: { blend_id: string }] }>()
const { text, errors, brought, asked, ready, chosenKind, chosenName, make } = useBring()
const put = useChange(
  'blends',
  async () => {
    const made = await make()
    emit('add', { blend_id: made.id })
  },
  { refused: (problem) => say(sentenceOf(problem)) },
)
const understood = computed(() => (brought.value?.made ?? []).length)
</script>

<template>
  <form class="recipe" aria-label="A recipe" @submit.prevent="put()">
    <label for="recipe-said">The recipe, as it is said or written</label>
    <textarea
      id="recipe-said"
      v-model="text"
      rows="5"
      spellcheck="false"
      placeholder="For the rub: 2 tbsp salt, 1 tbsp cumin …"
      :aria-invalid="!!errors.text"
    />
    <p v-if="errors.text" class="says" role="alert">{{ errors.text }}</p>
    <template v-if="brought">
      <p v-for="problem in brought.problems" :key="problem" class="says" role="alert">{{ problem }}</p>
      <p v-if="asked" class="asks" role="status">
        {{ asked }} {{ asked === 1 ? 'question' : 'questions' }} left:
        <router-link to="/blend/bring" class="link">answer {{ asked === 1 ? 'it' : 'them' }} line by line</router-link>
      </p>
      <p v-else-if="understood" role="status">
        {{ understood }} lines, {{ brought.batch }}:
        {{ brought.lines.flatMap((line) => line.items.map((item) => item.name || item.text)).join(', ') }}
      </p>
      <div class="two">
        <Field v-model="chosenName" label="Called" placeholder="Brought in" :maxlength="80" />
        <Select v-model="chosenKind" label="Kind of blend" :options="kinds.map((of) => ({ value: of, title: of }))" />
      </div>
    </template>
    <div class="ways">
      <v-btn class="solid" type="submit" :disabled="!ready">Put it on</v-btn>
      <slot />
    </div>
  </form>
</template>

<style scoped>
.recipe {
  display: grid;
  gap: var(--s-8);
  justify-items: start;
}
.recipe > textarea,
.two {
  width: 100%;
}
label {
  font-size: var(--t-xs);
  color: var(--muted);
}
textarea {
  line-height: 1.5;
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s-10);
  align-items: start;
}
.ways {
  display: flex;
  gap: var(--s-10);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.says {
  color: var(--stop);
}
.asks {
  color: var(--caution);
}
</style>
