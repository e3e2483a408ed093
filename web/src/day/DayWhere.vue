<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { byField, sentenceOf } from '../api/client'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import type { Day, DayChange } from './useDay'

/** Where it is eaten, and in how many waves what is grilled to order comes. */
const props = defineProps<{ day: Day; save: (change: DayChange) => Promise<void> }>()
type Where = 'here' | 'hot' | 'cold'
const where = ref<Where>('here')
const typed = reactive({ away: '', apart: '' })
const errors = ref<Record<string, string>>({})
const refused = ref('')
watch(
  () => props.day,
  (day) => {
    where.value = day.away ? day.travels : 'here'
    typed.away = day.away || typed.away || '30 min'
    typed.apart = day.waves_apart
  },
  { immediate: true },
)
const places: { value: Where; text: string }[] = [
  { value: 'here', text: 'here' },
  { value: 'hot', text: 'elsewhere, hot' },
  { value: 'cold', text: 'elsewhere, cold' },
]
const waves = computed({
  get: () => String(props.day.waves),
  set: (count: string) => void send({ waves: Number(count) }),
})
const counts = ['1', '2', '3', '4'].map((value) => ({ value, text: value }))
async function send(change: DayChange) {
  refused.value = ''
  try {
    await props.save(change)
    errors.value = {}
  } catch (failure) {
    errors.value = byField(failure)
    if (!Object.keys(errors.value).length) refused.value = sentenceOf(failure)
  }
}
function go(to: Where) {
  where.value = to
  void send(to === 'here' ? { away: '' } : { away: typed.away, travels: to })
}
</script>

<template>
  <section class="plate where" aria-label="Where it is eaten">
    <h2>Where it is eaten</h2>
    <div class="fields">
      <Choice :model-value="where" label="At the table" :options="places" @update:model-value="go" />
      <Field
        v-if="where !== 'here'"
        v-model="typed.away"
        label="On the way"
        placeholder="30 min"
        :error="errors.away"
        @change="go(where)"
      />
      <Choice v-model="waves" label="Waves" :options="counts" :error="errors.waves" />
      <Field
        v-if="day.waves > 1"
        v-model="typed.apart"
        label="Apart"
        placeholder="20 min"
        hint="what is many and short on the fire: skewers, steaks"
        :error="errors.waves_apart"
        @change="send({ waves_apart: typed.apart })"
      />
    </div>
    <p v-for="says in day.waves_say" :key="says">{{ says }}</p>
    <p v-if="where === 'hot'" class="muted">
      A cool box filled with hot water beforehand keeps wrapped meat above 60 °C for about 4 h; probe it when you get
      there.
    </p>
    <p v-if="where === 'cold'" class="muted">
      It is cooled before: to 21 °C within 2 h, to 5 °C within 6 h, and stays at 5 °C or less with ice on the way.
    </p>
    <p v-if="refused" role="alert">{{ refused }}</p>
  </section>
</template>

<style scoped>
.where {
  padding: var(--s-16) var(--s-20);
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-16);
  margin-top: var(--s-8);
}
p {
  margin: var(--s-8) 0 0;
  font-size: var(--t-s);
}
</style>
