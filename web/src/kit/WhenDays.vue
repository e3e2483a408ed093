<script setup lang="ts">
import { Temporal } from 'temporal-polyfill'
import { computed } from 'vue'

/** A calendar to take a day from. */
const props = defineProps<{ day: string }>()
const emit = defineEmits<{ pick: [day: string] }>()
/** The calendar counts in dates of this browser's zone. */
const chosen = computed(() => {
  if (!props.day) return null
  const { year, month, day } = Temporal.PlainDate.from(props.day)
  return new Date(year, month - 1, day)
})
function take(date: unknown) {
  if (!(date instanceof Date)) return
  const day = { year: date.getFullYear(), month: date.getMonth() + 1, day: date.getDate() }
  emit('pick', Temporal.PlainDate.from(day).toString())
}
</script>

<template>
  <v-date-picker
    :model-value="chosen"
    hide-header
    control-variant="modal"
    show-adjacent-months
    first-day-of-week="1"
    min="2000-01-01"
    max="2100-12-31"
    class="days"
    aria-label="Choose a day"
    @update:model-value="take"
  />
</template>

<style scoped>
.days {
  border: 1.5px solid var(--rim);
  background: var(--plate);
  color: var(--ink);
  font-family: var(--body);
}
.days :deep(.v-btn) {
  border-color: transparent;
  color: var(--ink);
}
.days :deep(.v-btn__overlay) {
  display: none;
}
.days :deep(.v-btn:hover) {
  background: var(--tint);
}
.days :deep(.v-date-picker-month__day-btn) {
  font-weight: 400;
}
.days :deep(.v-date-picker-month__weekday) {
  color: var(--muted);
  font-size: var(--t-s);
}
.days :deep(.v-date-picker-month__day--adjacent) {
  color: var(--muted);
}
/* today is ringed, what is chosen filled */
.days :deep(.v-btn--variant-outlined) {
  border-color: var(--line-strong);
}
.days :deep(.v-date-picker-month__day--selected .v-btn) {
  background: var(--cobalt);
  color: var(--on-cobalt);
  font-weight: 600;
}
</style>
