import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, byField, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { keep, refresh } from '../api/kept'
import { say } from '../kit/notice'
import * as units from '../kit/units'

export type Preferences = Schemas['PreferencesDocument']

const CACHE = 'ravska:preferences'
const usual: Preferences = {
  units: 'metric',
  temperature: 'C',
  spoon_set: 'us',
  spoons_lacking: [],
  theme: 'enamel',
  single_keys: true,
  height: '',
  zone: '',
  sleeps: '23:00:00',
  rises: '07:00:00',
}

function remembered(): Preferences {
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(CACHE) ?? '{}') as Partial<Preferences>) }
  } catch {
    return usual
  }
}

// kept outside components: the theme must be right before the server has answered
const stored = ref<Preferences>(remembered())
/** What was changed here; it holds against what the server tells later. */
const changed = ref<Partial<Preferences>>({})
const preferences = computed<Preferences>(() => ({ ...stored.value, ...changed.value }))
const remember = () => localStorage.setItem(CACHE, JSON.stringify(preferences.value))

const asked = {
  queryKey: ['preferences'],
  queryFn: () => call(api.GET('/api/book/preferences')),
  staleTime: Infinity,
}
/** The household's units, spoons and theme, with formatters bound to them. */
export function usePreferences() {
  const bound = computed(() => {
    const { units: u, temperature: t } = preferences.value
    return {
      mass: (grams: number) => units.mass(grams, u),
      dose: (grams: number) => units.dose(grams, u),
      volume: (ml: number) => units.volume(ml, u),
      /** Whether a cook here measures by the spoon before the scale. */
      spoonsFirst: u === 'us',
      setting: (value: number, unit: string) => units.setting(value, unit, u),
      sentence: (text: string) => units.sentence(text, u, t),
      area: (cm2: number) => units.area(cm2, u),
      length: (cm: number) => units.length(cm, u),
      depth: (mm: number) => units.depth(mm, u),
      depthTicks: (cm: number) => units.depthTicks(cm, u),
      temperature: (celsius: number) => units.temperature(celsius, t),
      difference: (kelvin: number) => units.difference(kelvin, t),
      inUnit: (value: number, unit: string) => units.inUnit(value, unit, u),
    }
  })

  /** The spoons as the server has them: what it measures out by spoons changes with this. */
  const spoons = computed(() => [stored.value.spoon_set, ...stored.value.spoons_lacking].join())

  return { preferences, spoons, show: bound }
}

/** Change how the household measures and looks at things: it shows at once, and is in the book a moment later. */
export function useSetPreferences() {
  const queries = useQueryClient()
  /** What could not be read, by field; it stays as it was. */
  const wrong = ref<Record<string, string>>({})
  const write = useChange(
    'preferences',
    async (change: Partial<Preferences>) => {
      // what was not changed here is as the server has it
      stored.value = await queries.ensureQueryData(asked)
      stored.value = await call(api.PUT('/api/book/preferences', { body: preferences.value }))
      wrong.value = {}
      await keep(queries, asked.queryKey, stored.value)
      // spoons are measured out by the server, water boils and days are planned where it says
      const told = ['spoon_set', 'spoons_lacking', 'height', 'zone', 'sleeps', 'rises']
      if (told.some((name) => name in change)) await refresh(queries, [])
    },
    {
      refused: (failure, [change]) => {
        changed.value = Object.fromEntries(Object.entries(changed.value).filter(([name]) => !(name in change)))
        remember()
        if (failure instanceof Refusal) wrong.value = byField(failure)
        else say(sentenceOf(failure))
      },
    },
  )
  const set = (change: Partial<Preferences>) => {
    changed.value = { ...changed.value, ...change }
    remember()
    return write(change)
  }
  return Object.assign(set, { wrong })
}

/** Take the stored preferences over the remembered ones once the server has them. */
export function useStoredPreferences() {
  const { data } = useQuery(asked)
  watch(data, (found) => {
    if (!found) return
    stored.value = found
    remember()
  })
}
