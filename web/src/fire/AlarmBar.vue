<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { usePreferences } from '../app/preferences'
import { time } from '../kit/units'
import { beep, notify, soundOn } from './alarm'
import { useThisFire } from './useFire'

/** What to see to now; silenced by a tap, on every page that is open, and told by sound where that was asked for. */
const { fire, tap } = useThisFire()
const { show } = usePreferences()
const alarms = computed(() => (fire.value?.reading?.alarms ?? []).filter((alarm) => !alarm.silenced))
const small = useMediaQuery('(max-width: 720px)')
/** On a phone the next one alone, so that nothing pushes the buttons away. */
const most = computed(() => (small.value ? 1 : 2))
const all = ref(false)
const shown = computed(() => (all.value ? alarms.value : alarms.value.slice(0, most.value)))
const told = new Set<string>()
watch(
  alarms,
  (now) => {
    // what is over, or was silenced, is told anew when it comes again
    for (const key of told) if (!now.some((alarm) => alarm.key === key)) told.delete(key)
    const fresh = now.filter((alarm) => !told.has(alarm.key))
    for (const alarm of fresh) {
      told.add(alarm.key)
      notify(show.value.sentence(alarm.says))
    }
    if (fresh.length && soundOn.value) beep()
  },
  { immediate: true },
)
</script>

<template>
  <section class="alarms" aria-label="Alarms" aria-live="assertive">
    <ul v-if="alarms.length">
      <li v-for="alarm in shown" :key="alarm.key" :class="alarm.kind">
        <span
          ><b>{{ time(alarm.since) }}</b> {{ show.sentence(alarm.says) }}</span
        >
        <button v-if="small && alarms.length > 1" type="button" class="link" @click="all = !all">
          {{ all ? 'Fewer' : `${alarms.length - 1} more` }}
        </button>
        <button type="button" :aria-label="`Silence: ${alarm.says}`" @click="tap('silence', { note: alarm.key })">
          Silence
        </button>
      </li>
    </ul>
    <button v-if="!small && alarms.length > most" type="button" class="link" @click="all = !all">
      {{ all ? 'Fewer' : `${alarms.length - most} more` }}
    </button>
  </section>
</template>

<style scoped>
.alarms ul {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 300px), 1fr));
  gap: var(--s-6);
}
li > span {
  flex: 1;
}
li {
  display: flex;
  justify-content: space-between;
  gap: var(--s-12);
  align-items: center;
  padding: 0 var(--s-4) 0 var(--s-14);
  border-radius: 12px;
  font-size: var(--t-s);
  border: 2px solid var(--ember);
  background: var(--plate);
}
li.clock,
li.probe {
  border-color: var(--stop);
}
li button {
  min-height: var(--tap);
  padding: 0 var(--s-12) !important;
  font-weight: 650 !important;
  color: var(--link) !important;
}
</style>
