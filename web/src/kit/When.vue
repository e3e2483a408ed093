<script setup lang="ts">
import { mdiCalendarBlankOutline } from '@mdi/js'
import { computed, defineAsyncComponent, ref, useId, watch } from 'vue'
import Field from './Field.vue'
import { dayInFull } from './units'
import { momentOf, timeOf, wallAt } from './when'

/** A day and a time at this kitchen's clock: the day from a calendar, the time as typed. Nothing while it is unclear. */
const moment = defineModel<string>({ required: true })
const props = defineProps<{ label: string; error?: string; inline?: boolean }>()
const WhenDays = defineAsyncComponent(() => import('./WhenDays.vue'))
const id = useId()
const day = ref('')
const time = ref('')
const open = ref(false)
const told = computed((): { iso: string; says: string } => {
  const read = timeOf(time.value)
  if (!read.time) return { iso: '', says: time.value ? read.says : '' }
  return day.value ? momentOf({ day: day.value, time: read.time }) : { iso: '', says: '' }
})
watch(
  moment,
  (now) => {
    // what is unclear is left as it was typed
    if (!now || now === told.value.iso) return
    const wall = wallAt(now)
    day.value = wall?.day ?? ''
    time.value = wall?.time ?? ''
  },
  { immediate: true },
)
function tell() {
  moment.value = told.value.iso
}
function pick(chosen: string) {
  day.value = chosen
  open.value = false
  tell()
}
const wrong = computed(() => (told.value.iso ? props.error : told.value.says || props.error))
</script>

<template>
  <div class="when" :class="{ inline, wrong }" role="group" :aria-labelledby="id">
    <span :id="id" class="label">{{ label }}</span>
    <span class="both">
      <v-menu v-model="open" :close-on-content-click="false" location="bottom start">
        <template #activator="{ props: opens }">
          <button v-bind="opens" type="button" class="day">
            {{ day ? dayInFull(day) : 'a day' }}
            <v-icon :icon="mdiCalendarBlankOutline" size="18" />
          </button>
        </template>
        <WhenDays :day="day" @pick="pick" />
      </v-menu>
      <Field v-model="time" label="Time" hidden-label placeholder="18:30" :maxlength="10" @update:model-value="tell" />
    </span>
    <p v-if="wrong || told.says" class="says" :role="wrong ? 'alert' : 'status'">{{ wrong || told.says }}</p>
  </div>
</template>

<style scoped>
.label {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
.both {
  display: flex;
  gap: var(--s-8);
}
.both .field {
  flex: 0 0 76px;
}
.day {
  flex: 1 1 auto;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s-8);
  min-height: var(--tap);
  padding: 0 var(--s-10);
  border-radius: 10px;
  background: var(--tint);
  font-size: var(--t-m);
  line-height: 1.2;
  text-align: start;
}
.day .v-icon {
  color: var(--muted);
}
.inline {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-2) var(--s-10);
}
.inline .label {
  padding: 0;
  font-size: var(--t-m);
}
.says {
  color: var(--muted);
  font-size: var(--t-xs);
  margin: var(--s-4) 0 0;
}
.wrong .says {
  color: var(--stop);
}
</style>
