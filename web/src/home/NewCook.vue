<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { api, byField, call, sentenceOf, type Schemas } from '../api/client'
import ArmBadge from '../ui/ArmBadge.vue'
import { cutWords, hasWords, useCatalogue } from '../ui/catalogue'
import Field from '../ui/Field.vue'
import { once } from '../ui/once'
import { fromTyped } from '../ui/units'

/** Begin a cook: two pieces, two ways to season them, one time to serve. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ made: [cook: Schemas['CookOut']] }>()
const { catalogue } = useCatalogue()
const { data: blends } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')), enabled: open })

const form = reactive({
  name: '',
  serve: '',
  arms: [
    { name: 'Rubbed', cut: '', mass: '', blend_id: '' },
    { name: 'Marinated', cut: '', mass: '', blend_id: '' },
  ],
})
const errors = ref<Record<string, string>>({})
const failure = ref('')
const cuts = computed(() =>
  (catalogue.value?.cuts ?? []).map((cut) => ({ value: cut.key, title: cut.name, words: cutWords(cut) })),
)
const choices = computed(() =>
  (blends.value ?? []).map((blend) => ({ value: blend.id, title: blend.name, words: `${blend.name} ${blend.kind}` })),
)
const matches = (_: string, typed: string, item?: { raw: { words: string } }) => hasWords(item?.raw.words ?? '', typed)
// the same cut on both sides is the fair test, so the second follows the first until it is chosen
watch(
  () => form.arms[0].cut,
  (cut, before) => {
    if (!form.arms[1].cut || form.arms[1].cut === before) form.arms[1].cut = cut
  },
)

const begin = once(async () => {
  errors.value = {}
  failure.value = ''
  const missing: Record<string, string> = {}
  if (!form.serve) missing.serve_at = 'Say when people sit down.'
  form.arms.forEach((arm, at) => {
    if (!arm.blend_id) missing[`arms.${at}.blend_id`] = 'Choose a blend for this arm.'
    if (!arm.cut) missing[`arms.${at}.cut`] = 'Choose a cut.'
  })
  if (Object.keys(missing).length) {
    errors.value = missing
    return
  }
  try {
    const body = { name: form.name, serve_at: fromTyped(form.serve) ?? form.serve, arms: form.arms }
    emit('made', await call(api.POST('/api/cooks', { body })))
    open.value = false
  } catch (problem) {
    errors.value = byField(problem)
    if (!Object.keys(errors.value).length) failure.value = sentenceOf(problem)
  }
})
</script>

<template>
  <v-dialog v-model="open" max-width="640" aria-label="New cook">
    <form class="plate new" novalidate @submit.prevent="begin">
      <h2>New cook</h2>
      <div class="two">
        <Field v-model="form.name" label="What is it called" placeholder="Sunday lunch" :error="errors.name" />
        <Field v-model="form.serve" label="People sit down" type="datetime-local" :error="errors.serve_at" />
      </div>
      <fieldset v-for="(arm, at) in form.arms" :key="at">
        <legend><ArmBadge :label="'AB'[at]" /></legend>
        <Field v-model="arm.name" label="Name" :error="errors[`arms.${at}.name`]" />
        <Field
          v-model="arm.mass"
          label="Raw weight"
          placeholder="2.3 kg or 5 lb 1 oz"
          :error="errors[`arms.${at}.mass`]"
        />
        <label>
          <span>Cut</span>
          <v-autocomplete
            v-model="arm.cut"
            :items="cuts"
            :custom-filter="matches"
            :aria-label="`Cut of arm ${'AB'[at]}`"
            no-data-text="No cut of that name; try the animal."
          />
          <em v-if="errors[`arms.${at}.cut`]" role="alert">{{ errors[`arms.${at}.cut`] }}</em>
        </label>
        <label>
          <span>Blend</span>
          <v-autocomplete
            v-model="arm.blend_id"
            :items="choices"
            :custom-filter="matches"
            :aria-label="`Blend of arm ${'AB'[at]}`"
            no-data-text="No blend of that name."
          />
          <em v-if="errors[`arms.${at}.blend_id`]" role="alert">{{ errors[`arms.${at}.blend_id`] }}</em>
        </label>
      </fieldset>
      <p v-if="failure" role="alert">{{ failure }}</p>
      <div class="ways">
        <v-btn class="solid" type="submit">Begin</v-btn>
        <v-btn @click="open = false">Not now</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.new {
  padding: 22px 26px;
  display: grid;
  gap: 16px;
}
.two,
fieldset {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
  align-items: start;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 10px 0 0;
  margin: 0;
}
legend {
  padding: 0 10px 0 0;
}
label span {
  font-size: 13px;
  color: var(--muted);
}
em,
p {
  color: var(--stop);
  font-style: normal;
  font-size: 13px;
  margin: 0;
}
.ways {
  display: flex;
  gap: 10px;
}
@media (max-width: 720px) {
  .two,
  fieldset {
    grid-template-columns: 1fr;
  }
}
</style>
