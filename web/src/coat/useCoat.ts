import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, inject, nextTick, ref, watch, type InjectionKey } from 'vue'
import { api, call, within, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { KEY } from '../api/keys'
import { useAutosave } from '../edit/autosave'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import { PATIENCE_MS, useQuestion } from '../api/question'
import { useUndo } from '../edit/undo'
import { useCatalogue } from '../api/catalogue'
import { layerColour, layerName, ofTheBath } from './layers'
import { inOrder, lastRead, wrongFields } from './reading'
import { sure } from '../kit/sure'

type Piece = Schemas['PieceDocument']
export type Layer = Schemas['LayerDocument']
type Out = Schemas['CookOut']
type Answer = (Schemas['CoatReadingOut'] | null)[]
type Doc = Pick<Schemas['CookSave'], 'name' | 'serve_at' | 'eaters' | 'appetite' | 'note'> & { pieces: Piece[] }

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** What a cook is as typed. */
export const typed = (out: Out): Doc =>
  plain({
    name: out.name,
    serve_at: out.serve_at,
    eaters: out.eaters,
    appetite: out.appetite as Doc['appetite'],
    note: out.note,
    pieces: out.pieces,
  })

/** The cook on the board: its pieces with their stacks, what they come to, and every change to them. */
export function useCoat(id?: string) {
  const queries = useQueryClient()
  const doc = ref<Doc | null>(null)
  const cook = ref<Out | null>(null)
  /** The pieces as they were last read, by their letter: what cannot be read is taken as it was. */
  let before = new Map<string, Piece>()
  const {
    answer: answered,
    errors,
    ask,
  } = useQuestion<Answer>({
    patience: PATIENCE_MS,
    wrong: (answer) => wrongFields(answer, cook.value?.errors ?? []),
  })
  const reading = computed(() => answered.value?.map((one) => one && inOrder(one)) ?? null)
  /** Whether the pieces were read at all, so that what is missing is known to be. */
  const cored = computed(() => reading.value !== null)
  /** The time of the hold the core samples are taken at [s]; none is its end. */
  const atS = ref<number | null>(null)
  const current = ref(0)
  /** Whether the binders are laid out for the coat of the open piece. */
  const binding = ref(false)

  function layBinders(open: boolean) {
    binding.value = open
  }
  const path = () => ({ cook_id: sure(cook.value).id })
  const autosave = useAutosave<Doc, Out>({
    key: () => `cook:${cook.value?.id}`,
    doc,
    typed,
    save: (body, version, key) => {
      const sent = { params: { path: path() }, body: { ...body, version }, headers: { [KEY]: key } }
      return call(api.PUT('/api/cooks/{cook_id}', sent))
    },
    saved: (out) => {
      cook.value = out
      if (answered.value) errors.value = wrongFields(answered.value, out.errors)
      void refresh(queries, ['home'], ['cooks'], ['totals', out.id])
    },
  })
  const history = useUndo(doc, () => autosave.touch())

  type Loaded = { out: Out; readings: Answer | null }
  const { data: loaded, error } = useQuery({
    queryKey: ['coat', id ?? 'in hand'],
    queryFn: async (): Promise<Loaded | null> => {
      const of = id ?? (await call(api.GET('/api/cooks'))).find((row) => row.in_hand)?.id
      if (!of) return null
      const out = await call(api.GET('/api/cooks/{cook_id}', { params: { path: { cook_id: of } } }))
      const body = { pieces: out.pieces, appetite: out.appetite as Doc['appetite'], before: out.before }
      // what cannot be read is asked for again once it is on the screen, and says there what is wrong
      const readings = await call(api.POST('/api/cooks/coat/read', { body })).catch(() => null)
      return { out, readings }
    },
    gcTime: 0,
    staleTime: 0,
  })
  watch(
    loaded,
    (found) => {
      if (!found || doc.value) return
      cook.value = found.out
      before = new Map(found.out.before.map((piece) => [piece.letter, piece]))
      take(found.out.pieces, found.readings)
      autosave.begin(found.out)
      void nextTick(history.beginHistory)
    },
    { immediate: true },
  )
  function take(sent: Piece[], readings: Answer | null) {
    if (!readings) return
    answered.value = readings
    errors.value = wrongFields(readings, cook.value?.errors ?? [])
    before = lastRead(before, sent, readings)
  }
  function read() {
    if (!doc.value) return
    const { pieces, appetite } = doc.value
    const body = plain({ pieces, appetite, at_s: atS.value, before: [...before.values()] })
    void ask(async (signal) => {
      const readings = await call(api.POST('/api/cooks/coat/read', { body, signal }))
      before = lastRead(before, body.pieces, readings)
      return readings
    })
  }
  watch(
    doc,
    (now, before) => {
      if (!now) return
      if (current.value >= now.pieces.length) current.value = 0
      if (spoilt(now)) return void nextTick(putBack)
      if (before || !reading.value) read()
      if (before) autosave.touch()
    },
    { deep: true },
  )
  watch([atS, usePreferences().spoons], read)

  /** Whether cards are in, so that the pieces that were tasted do not change any more. */
  const tasted = computed(() => (cook.value?.trial?.cards ?? 0) > 0)
  const asTasted = () => typed(sure(cook.value)).pieces.filter((one) => one.tasted)
  /** Whether something of the pieces that were tasted was changed. */
  const spoilt = (now: Doc) =>
    tasted.value &&
    !asTasted().every(
      (one) => JSON.stringify(one) === JSON.stringify(now.pieces.find((other) => other.letter === one.letter)),
    )
  /** Put them back as they were, once the screen has shown what was typed, so that it shows that they stay. */
  function putBack() {
    if (!doc.value || !spoilt(doc.value)) return
    const kept = asTasted()
    const others = doc.value.pieces.filter((one) => !kept.some((of) => of.letter === one.letter))
    doc.value.pieces = [...kept, ...others.map((one) => ({ ...one, tasted: false }))].sort((a, b) =>
      a.letter.localeCompare(b.letter),
    )
    say('Cards are in, so what was tasted stays as it was; make a copy to change it.')
  }
  const piece = computed(() => doc.value?.pieces[current.value] ?? null)
  const mine = computed(() => reading.value?.[current.value] ?? null)
  const none: Schemas['BlendRow'][] = []
  const { data: rows } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')) })
  const blends = computed(() => rows.value ?? none)
  const { grinds } = useCatalogue()
  /** What a layer is called, and drawn in. */
  const nameOf = (layer: Layer) =>
    // until the blends are here nothing is said of which one it is
    layer.blend_id && !rows.value ? layer.kind : layerName(layer, blends.value, grinds.value)
  const colourOf = (layer: Layer) => layerColour(layer, blends.value, grinds.value)
  /** The errors of one piece, by their field within it. */
  const errorsOf = (at: number) => within(errors.value, `pieces.${at}.`)

  type Put = (piece: Piece, board: Doc) => void
  const doing = useChange('board', async (letter: string | undefined, ask: (piece: Piece) => Promise<Put>) => {
    const meant = () => doc.value?.pieces.find((other) => other.letter === letter)
    const before = meant()
    if (!before) return false
    history.mark()
    const put = await ask(plain(before))
    // undone or taken off the board meanwhile
    const after = meant()
    if (!after || !doc.value) return false
    put(after, doc.value)
    history.mark()
    return true
  })
  /**
   * Do one thing to the open piece that the server works out, and put what it found on the board as it is by then. One
   * after the other: each is worked out from what the one before has made.
   */
  const change = async (ask: (piece: Piece) => Promise<Put>): Promise<boolean> =>
    (await doing(piece.value?.letter, ask)) ?? false
  const taken = () => sure(doc.value).pieces.map((other) => other.letter)
  const free = () => [...'ABCDEFGH'].find((letter) => !taken().includes(letter))

  const addLayer = (what: { kind?: Layer['kind']; blend_id?: string; grind?: string }) =>
    change(async ({ layers, ...piece }) => {
      const body = { piece, grind: '', layers, ...what }
      const made = await call(api.POST('/api/cooks/coat/layer', { body }))
      if (made.own) say(made.own)
      return ({ layers }) => {
        layers.splice(made.place, 0, made.layer)
        // what is left of a bath goes into the pot that is of nothing else
        const bath = layers.slice(0, made.place).findLast((layer) => layer.kind === 'marinade')
        if (bath && ofTheBath(made.layer)) bath.into_pot = true
      }
    })
  /** Let a layer be of another kind: at the dose and hold that are usual then, but as much as was said. `moved` is told
   * where it then lies. */
  const changeKind = (at: number, kind: Layer['kind'], moved: (to: number) => void) =>
    change(async ({ layers, ...piece }) => {
      const { blend_id, grind, dose, revision, mixed_g } = sure(layers[at])
      // words in it are an amount or a share, whether it was read yet or not; a bare number is the old dial's
      const wasSaid = /\p{L}/u.test(dose ?? '')
      const others = layers.filter((_, n) => n !== at)
      const body = { piece, kind, blend_id, grind: grind ?? '', layers: others }
      const made = await call(api.POST('/api/cooks/coat/layer', { body }))
      const said = wasSaid ? { dose, mixed_g } : {}
      return ({ layers }) => {
        layers.splice(at, 1)
        layers.splice(made.place, 0, { ...made.layer, ...said, revision })
        moved(made.place)
      }
    })
  const takeWay = (way: string) =>
    change(async (piece) => {
      const found = await call(api.POST('/api/cooks/coat/way', { body: { way, piece, blend_ids: [] } }))
      return (of) => void Object.assign(of, found)
    })
  const makePair = (ways: Schemas['PairDocument']['ways'], split: boolean, blend_ids: string[]) =>
    change(async (piece) => {
      const body = { piece, ways, split, taken: taken(), blend_ids }
      const pair = await call(api.POST('/api/cooks/coat/pair', { body }))
      return (of, board) => {
        const others = board.pieces.filter((other) => other !== of).map((other) => ({ ...other, tasted: false }))
        board.pieces = [...pair, ...others].sort((a, b) => a.letter.localeCompare(b.letter))
        current.value = board.pieces.findIndex((other) => other.letter === pair[0]?.letter)
      }
    })
  const takeSkin = () =>
    change(async (piece) => {
      const [kept, skin] = await call(api.POST('/api/cooks/coat/skin', { body: { piece, taken: taken() } }))
      return (of, board) => {
        Object.assign(of, kept)
        board.pieces.push(sure(skin))
      }
    })
  const replaced =
    (layer: number, found: Layer): Put =>
    ({ layers }) => {
      if (layers[layer]?.kind === found.kind) layers[layer] = found
    }
  const giveWay = (layer: number) =>
    change(async (piece) => {
      const others = plain(sure(doc.value).pieces.filter((other) => other.letter !== piece.letter))
      const found = await call(api.POST('/api/cooks/coat/aim', { body: { piece, layer, others } }))
      if (found.says) say(found.says)
      return replaced(layer, found.layer)
    })
  /** Spread so many sites; or move those that lie on bone or beyond the edge to where a needle can go in. */
  const layOut = (layer: number, count?: number) =>
    change(async (piece) => {
      const found = await call(api.POST('/api/cooks/coat/sites', { body: { piece, layer, count } }))
      return replaced(layer, found)
    })
  function aimAt(target: string) {
    if (piece.value) piece.value.target = target
  }
  /** Put a stack of layers on the piece; doses go by surface and weight, so they fit it by themselves. */
  const putStack = (layers: Layer[]) => change(() => Promise.resolve((of) => void (of.layers = plain(layers))))
  /** Take part of the open piece off it: as another piece here, or as a cook of another day. */
  async function divide(part: Omit<Schemas['DivideDocument'], 'version' | 'letter'>) {
    await autosave.flush()
    history.mark()
    const body = { ...part, version: sure(cook.value).version, letter: sure(piece.value).letter }
    const found = await call(api.POST('/api/cooks/{cook_id}/divide', { params: { path: path() }, body }))
    cook.value = found.cook
    autosave.begin(found.cook)
    await refresh(queries, ['home'], ['cooks'], ['totals', found.cook.id])
    return found
  }
  function addPiece() {
    const letter = free()
    if (!doc.value || !letter) return say('A cook has at most eight pieces; remove one first.')
    history.mark()
    const open = sure(piece.value)
    const { cut, mass } = before.get(open.letter) ?? open
    doc.value.pieces.push({
      letter,
      name: 'Another piece',
      cut,
      mass,
      count: 1,
      layers: [],
      target: '',
    } as unknown as Piece)
    current.value = doc.value.pieces.length - 1
  }
  function removePiece(at: number) {
    if (!doc.value || doc.value.pieces.length < 2) return
    history.mark()
    const [gone] = doc.value.pieces.splice(at, 1)
    current.value = 0
    say(`${sure(gone).name} is off the board.`, () => history.undo())
  }
  return {
    doc, cook, reading, mine, blends, nameOf, colourOf, errors, errorsOf, atS, cored, current, binding, piece, loaded, error, autosave, history,
    tasted, addLayer, changeKind, takeWay, makePair, takeSkin, giveWay, layOut, layBinders, aimAt, putStack, divide, addPiece, removePiece, path,
  } // prettier-ignore
}

export type Coat = ReturnType<typeof useCoat>

/** The cook on the board, for all that is drawn within the station. */
export const COAT: InjectionKey<Coat> = Symbol('coat')
export function coatHere(): Coat {
  const coat = inject(COAT)
  if (!coat) throw new Error('No coat is provided here.')
  return coat
}
/** The open piece, for what is shown only while there is one. */
export function pieceHere() {
  const coat = coatHere()
  return computed(() => sure(coat.piece.value))
}
/** One of its layers. */
export function layerHere(at: () => number) {
  const piece = pieceHere()
  return computed(() => sure(piece.value.layers[at()]))
}
