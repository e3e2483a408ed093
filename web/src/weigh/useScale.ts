import { useDocumentVisibility } from '@vueuse/core'
import { onScopeDispose, shallowRef } from 'vue'
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'

export type ScaleNow = Schemas['ScaleNow']
const EVERY_MS = 120
const AWAY_MS = 800

/** What the scale shows, asked for a few times a second while the screen is looked at. */
export function useScale() {
  const now = shallowRef<ScaleNow | null>(null)
  /** The server itself is away; what was weighed is safe there. */
  const away = shallowRef(false)
  const visible = useDocumentVisibility()
  let over = false
  let timer: ReturnType<typeof setTimeout> | undefined

  async function ask() {
    if (visible.value === 'visible') {
      try {
        now.value = await call(api.GET('/api/devices/scale'))
        away.value = false
      } catch {
        away.value = true
        now.value = null // what it showed before says nothing of what lies on it now
      }
    }
    if (!over) timer = setTimeout(() => void ask(), away.value ? AWAY_MS : EVERY_MS)
  }
  void ask()
  onScopeDispose(() => {
    over = true
    clearTimeout(timer)
  })

  const doing = useChange('scale', async (work: () => Promise<ScaleNow>) => {
    now.value = await work()
    return true
  })
  const told = async (work: () => Promise<ScaleNow>) => (await doing(work)) ?? false
  const tare = () => told(() => call(api.POST('/api/devices/scale/tare')))
  const start = (resolution_g: 0.1 | 1) =>
    told(() =>
      call(
        api.POST('/api/devices/scale/simulated', { body: { resolution_g, capacity_g: 5000, drop_outs_a_minute: 0 } }),
      ),
    )
  const handle = (does: Schemas['HandlingDocument']['do'], grams = 0, seconds = 0) =>
    told(() => call(api.POST('/api/devices/scale/simulated/handle', { body: { do: does, grams, seconds } })))
  return { now, away, tare, start, handle }
}

export type Scale = ReturnType<typeof useScale>
