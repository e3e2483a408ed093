import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, shallowReadonly, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import * as units from './units'

export type Preferences = Schemas['PreferencesDocument']

const CACHE = 'ravska:preferences'
const usual: Preferences = {
  units: 'metric',
  temperature: 'C',
  spoon_set: 'us',
  spoons_lacking: [],
  theme: 'enamel',
  single_keys: true,
}

function remembered(): Preferences {
  try {
    return { ...usual, ...JSON.parse(localStorage.getItem(CACHE) ?? '{}') }
  } catch {
    return usual
  }
}

// kept outside components: the theme must be right before the server has answered
const preferences = ref<Preferences>(remembered())

/** The household's units, spoons and theme, with formatters bound to them. */
export function usePreferences() {
  const queries = useQueryClient()

  async function set(change: Partial<Preferences>) {
    preferences.value = { ...preferences.value, ...change }
    localStorage.setItem(CACHE, JSON.stringify(preferences.value))
    await call(api.PUT('/api/preferences', { body: preferences.value }))
    // spoons are measured out by the server
    if (change.spoon_set || change.spoons_lacking) await queries.invalidateQueries()
  }

  const bound = computed(() => {
    const { units: u, temperature: t } = preferences.value
    return {
      mass: (grams: number) => units.mass(grams, u),
      dose: (grams: number) => units.dose(grams, u),
      volume: (ml: number) => units.volume(ml, u),
      area: (cm2: number) => units.area(cm2, u),
      length: (cm: number) => units.length(cm, u),
      temperature: (celsius: number) => units.temperature(celsius, t),
      inUnit: (value: number, unit: string) => units.inUnit(value, unit, u),
    }
  })

  return { preferences: shallowReadonly(preferences), set, show: bound }
}

/** Take the stored preferences over the remembered ones once the server has them. */
export function useStoredPreferences() {
  const { data } = useQuery({
    queryKey: ['preferences'],
    queryFn: () => call(api.GET('/api/preferences')),
    staleTime: Infinity,
  })
  watch(data, (stored) => {
    if (!stored) return
    preferences.value = stored
    localStorage.setItem(CACHE, JSON.stringify(stored))
  })
}
