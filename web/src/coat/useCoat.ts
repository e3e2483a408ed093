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
        : (await call(api.GET('/api/cooks/in-hand'))).cook,
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
    void ask((signal) => call(api.POST('/api/cooks/coat/read', { body, signal })))
  }
  watch(
    doc,
    (now, before) => {
      if (!now) return
      if (current.value >= now.arms.length) current.value = 0
      if (spoilt(now)) return void nextTick(putBack)
      read()
      if (before) autosave.touch()
    },
    { deep: true },
  )
  watch([atS, usePreferences().spoons], read)

  /** Whether cards are in, so that the pieces that were tasted do not change any more. */
  const tasted = computed(() => (cook.value?.cards ?? 0) > 0)
  const asTasted = () => typed(cook.value!).arms.filter((one) => !one.beside)
  /** Whether something of the pieces that were tasted was changed. */
  const spoilt = (now: Doc) =>
    tasted.value &&
    !asTasted().every(
      (one) => JSON.stringify(one) === JSON.stringify(now.arms.find((other) => other.label === one.label)),
    )
  /** Put them back as they were, once the screen has shown what was typed, so that it shows that they stay. */
  function putBack() {
    if (!doc.value || !spoilt(doc.value)) return
    const kept = asTasted()
    const others = doc.value.arms.filter((one) => !kept.some((of) => of.label === one.label))
    doc.value.arms = [...kept, ...others.map((one) => ({ ...one, beside: true }))].sort((a, b) =>
      a.label.localeCompare(b.label),
    )
    say('Cards are in, so what was tasted stays as it was; make a copy to change it.')
  }
  const arm = computed(() => doc.value?.arms[current.value] ?? null)
  const stored = computed(() => cook.value?.arms.find((other) => other.label === arm.value?.label))
  /** The errors of one arm, by their field within it. */
  const errorsOf = (at: number) => within(errors.value, `arms.${at}.`)

  type Put = (now: Doc, at: number) => void
  let queue: Promise<unknown> = Promise.resolve()
  /**
   * Do one thing to the open piece that the server works out, and put what it found on the board as it is by then; what
   * it refuses is said. One after the other: each is worked out from what the one before has made.
   */
  function change(ask: (now: Doc, at: number) => Promise<Put>): Promise<boolean> {
    const label = arm.value?.label
    const place = () => doc.value?.arms.findIndex((other) => other.label === label) ?? -1
    const made = queue.then(async () => {
      if (!doc.value || place() < 0) return false
      history.mark()
      try {
        const put = await ask(doc.value, place())
        // undone or taken off the board meanwhile
        if (place() < 0) return false
        put(doc.value, place())
        history.mark()
        return true
      } catch (failure) {
        say(sentenceOf(failure))
        return false
      }
    })
    queue = made
    return made
  }
  const taken = () => doc.value!.arms.map((other) => other.label)
  const free = () => [...'ABCDEFGH'].find((label) => !taken().includes(label))

  const addLayer = (what: { kind?: Layer['kind']; blend_id?: string; grind?: string }) =>
    change(async (now, at) => {
      const { piece, layers } = plain(now.arms[at])
      const body = { piece, grind: '', layers, ...what }
      const made = await call(api.POST('/api/cooks/coat/layer', { body }))
      return (board, to) => void board.arms[to].layers.splice(made.place, 0, made.layer)
    })
  const takeSchool = (school: string) =>
    change(async (now, at) => {
      const body = { school, arm: plain(now.arms[at]), blend_ids: [] }
      const found = await call(api.POST('/api/cooks/coat/school', { body }))
      return (board, to) => void (board.arms[to] = found)
    })
  const makePair = (kinds: Schemas['PairDocument']['kinds'], split: boolean, blend_ids: string[]) =>
    change(async (now, at) => {
      const body = { arm: plain(now.arms[at]), kinds, split, taken: taken(), blend_ids }
      const pair = await call(api.POST('/api/cooks/coat/pair', { body }))
      return (board, to) => {
        const others = board.arms.filter((_, n) => n !== to).map((other) => ({ ...other, beside: true }))
        board.arms = [...pair, ...others].sort((a, b) => a.label.localeCompare(b.label))
        current.value = board.arms.findIndex((other) => other.label === pair[0].label)
      }
    })
  const takeSkin = () =>
    change(async (now, at) => {
      const body = { arm: plain(now.arms[at]), taken: taken() }
      const [kept, skin] = await call(api.POST('/api/cooks/coat/skin', { body }))
      return (board, to) => {
        board.arms[to] = kept
        board.arms.push(skin)
      }
    })
  const replaced =
    (layer: number, found: Layer): Put =>
    (board, to) => {
      if (board.arms[to].layers[layer]?.kind === found.kind) board.arms[to].layers[layer] = found
    }
  const giveWay = (layer: number) =>
    change(async (now, at) => {
      const found = await call(api.POST('/api/cooks/coat/aim', { body: { arm: plain(now.arms[at]), layer } }))
      if (found.says) say(found.says)
      return replaced(layer, found.layer)
    })
  /** Move the sites of an injection that lie on bone or beyond the edge to where a needle can go in. */
  const moveOff = (layer: number) =>
    change(async (now, at) => {
      const found = await call(api.POST('/api/cooks/coat/sites', { body: { arm: plain(now.arms[at]), layer } }))
      return replaced(layer, found)
    })
  function aimAt(target: string) {
    if (arm.value) arm.value.target = target
  }
  /** Put a stack of layers on the piece; doses go by surface and weight, so they fit it by themselves. */
  const putStack = (layers: Layer[]) => change(async () => (board, to) => void (board.arms[to].layers = plain(layers)))
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
    tasted, addLayer, takeSchool, makePair, takeSkin, giveWay, moveOff, layBinders, aimAt, putStack, addPiece, removePiece, path,
  } // prettier-ignore
}

export type Coat = ReturnType<typeof useCoat>
