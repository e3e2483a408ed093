import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { api, call, sentenceOf, within, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { useAutosave } from '../ui/autosave'
import { say } from '../ui/notice'
import { usePreferences } from '../ui/preferences'
import { useReading } from '../ui/reading'
import { useUndo } from '../ui/undo'

export type Arm = Schemas['ArmDocument']
export type Layer = Schemas['LayerDocument']
export type Reading = Schemas['ArmReadingOut']
type Out = Schemas['CookOut']
type Doc = Pick<Schemas['CookSave'], 'name' | 'serve_at' | 'arms' | 'eaters' | 'appetite'>

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** What a cook is as typed. */
export const typed = (out: Out): Doc =>
  plain({
    name: out.name,
    serve_at: out.serve_at,
    eaters: out.eaters,
    appetite: out.appetite as Doc['appetite'],
    arms: out.arms.map((arm) => ({
      label: arm.label,
      name: arm.name,
      beside: arm.beside,
      target: arm.target,
      piece: arm.piece,
      layers: arm.layers.map((layer) => layer.typed),
    })),
  })

/** The cook on the board: its pieces with their stacks, what they come to, and every change to them. */
export function useCoat(id?: string) {
  const queries = useQueryClient()
  const doc = ref<Doc | null>(null)
  const cook = ref<Out | null>(null)
  const { reading, errors, ask } = useReading<(Reading | null)[]>()
  /** What came with the cook: everything but the core samples, which are asked for. */
  let seeded: unknown = null
  const cored = computed(() => reading.value !== seeded)
  /** The time of the hold the core samples are taken at [s]; none is its end. */
  const atS = ref<number | null>(null)
  const current = ref(0)
  /** Whether the binders are laid out for the coat of the open piece. */
  const binding = ref(false)

  function layBinders(open: boolean) {
    binding.value = open
  }
  const path = () => ({ cook_id: cook.value!.id })
  const autosave = useAutosave<Doc, Out>({
    key: () => `cook:${cook.value?.id}`,
    doc,
    typed,
    save: (body, version) =>
      call(api.PUT('/api/cooks/{cook_id}', { params: { path: path() }, body: { ...body, version } })),
    saved: (out) => {
      cook.value = out
      void refresh(queries, ['home'], ['cooks'], ['totals', out.id])
    },
  })
  const history = useUndo(doc, () => autosave.touch())

  const { data: loaded, error } = useQuery({
    queryKey: ['coat', id ?? 'in hand'],
    queryFn: async (): Promise<Out | null> =>
      id
        ? call(api.GET('/api/cooks/{cook_id}', { params: { path: { cook_id: id } } }))
        : (await call(api.GET('/api/home'))).cook,
    gcTime: 0,
    staleTime: 0,
  })
  watch(
    loaded,
    (out) => {
      if (!out || doc.value) return
      cook.value = out
      reading.value = seeded = out.arms.map((arm) => arm.reading)
      autosave.begin(out)
      void nextTick(history.beginHistory)
    },
    { immediate: true },
  )
  function read() {
    if (!doc.value) return
    const body = plain({ arms: doc.value.arms, appetite: doc.value.appetite, at_s: atS.value })
    void ask((signal) => call(api.POST('/api/coat/read', { body, signal })))
  }
  watch(
    doc,
    (now, before) => {
      if (!now) return
      if (current.value >= now.arms.length) current.value = 0
      read()
      if (before) autosave.touch()
    },
    { deep: true },
  )
  watch([atS, usePreferences().spoons], read)

  const arm = computed(() => doc.value?.arms[current.value] ?? null)
  const stored = computed(() => cook.value?.arms.find((other) => other.label === arm.value?.label))
  /** The errors of one arm, by their field within it. */
  const errorsOf = (at: number) => within(errors.value, `arms.${at}.`)

  /** Do one thing to the board that the server works out; what it refuses is said. */
  async function change(work: (now: Doc) => Promise<void>): Promise<boolean> {
    if (!doc.value) return false
    history.mark()
    try {
      await work(doc.value)
      history.mark()
      return true
    } catch (failure) {
      say(sentenceOf(failure))
      return false
    }
  }
  const taken = () => doc.value!.arms.map((other) => other.label)
  const free = () => [...'ABCDEFGH'].find((label) => !taken().includes(label))

  const addLayer = (what: { kind?: Layer['kind']; blend_id?: string; grind?: string }) =>
    change(async (now) => {
      const to = now.arms[current.value]
      const among = to.layers.map((layer) => layer.kind)
      const made = await call(
        api.POST('/api/coat/layer', { body: { piece: plain(to.piece), grind: '', among, ...what } }),
      )
      to.layers.splice(made.place, 0, made.layer)
    })
  const takeSchool = (school: string) =>
    change(async (now) => {
      const at = current.value
      now.arms[at] = await call(
        api.POST('/api/coat/school', { body: { school, arm: plain(now.arms[at]), blend_ids: [] } }),
      )
    })
  const makePair = (kinds: Schemas['PairDocument']['kinds'], split: boolean, blend_ids: string[]) =>
    change(async (now) => {
      const at = current.value
      const body = { arm: plain(now.arms[at]), kinds, split, taken: taken(), blend_ids }
      const pair = await call(api.POST('/api/coat/pair', { body }))
      const others = now.arms.filter((_, n) => n !== at).map((other) => ({ ...other, beside: true }))
      now.arms = [...pair, ...others].sort((a, b) => a.label.localeCompare(b.label))
      current.value = now.arms.findIndex((other) => other.label === pair[0].label)
    })
  const takeSkin = () =>
    change(async (now) => {
      const at = current.value
      const [kept, skin] = await call(
        api.POST('/api/coat/skin', { body: { arm: plain(now.arms[at]), taken: taken() } }),
      )
      now.arms[at] = kept
      now.arms.push(skin)
    })
  const giveWay = (layer: number) =>
    change(async (now) => {
      const at = current.value
      const found = await call(api.POST('/api/coat/aim', { body: { arm: plain(now.arms[at]), layer } }))
      now.arms[at].layers[layer] = found
    })
  /** Move the sites of an injection that lie on bone or beyond the edge to where a needle can go in. */
  const moveOff = (layer: number) =>
    change(async (now) => {
      const arm = now.arms[current.value]
      arm.layers[layer] = await call(api.POST('/api/coat/sites', { body: { arm: plain(arm), layer } }))
    })
  function aimAt(target: string) {
    if (arm.value) arm.value.target = target
  }
  /** Put a stack of layers on the piece; doses go by surface and weight, so they fit it by themselves. */
  const putStack = (layers: Layer[]) =>
    change(async (now) => {
      now.arms[current.value].layers = plain(layers)
    })
  function addPiece() {
    const label = free()
    if (!doc.value || !label) return say('A cook has at most eight pieces; remove one first.')
    history.mark()
    const like = doc.value.arms[current.value].piece
    const piece = { cut: like.cut, mass: like.mass, count: 1 } as Arm['piece']
    doc.value.arms.push({ label, name: 'Another piece', piece, layers: [], target: '', beside: true })
    current.value = doc.value.arms.length - 1
  }
  function removePiece(at: number) {
    if (!doc.value || doc.value.arms.length < 2) return
    history.mark()
    const [gone] = doc.value.arms.splice(at, 1)
    current.value = 0
    say(`${gone.name} is off the board.`, () => history.undo())
  }
  return {
    doc, cook, reading, errors, errorsOf, atS, cored, current, binding, arm, stored, loaded, error, autosave, history,
    addLayer, takeSchool, makePair, takeSkin, giveWay, moveOff, layBinders, aimAt, putStack, addPiece, removePiece, path,
  } // prettier-ignore
}

export type Coat = ReturnType<typeof useCoat>
