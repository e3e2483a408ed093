import { useTimestamp } from '@vueuse/core'
import { get, set } from 'idb-keyval'
import { computed, inject, onScopeDispose, provide, ref, shallowRef, watch, type InjectionKey, type Ref } from 'vue'
import { api, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { newKey } from '../api/keys'
import { say } from '../kit/notice'
import { outbox, put, sendNow, takeUp, type Tap } from './outbox'

type Fire = Schemas['FireOut']
export type PieceStands = Schemas['PieceAtFire']
export type Noted = Schemas['EventOut']

/** What a probe showed: times in ms since the epoch. */
export interface Line {
  key: string
  role: string
  letter: string
  at: number[]
  celsius: number[]
}

const ASKS_EVERY_MS = 2000
/** How often what is shown is kept in this browser, for when it is loaded without the server. */
const KEPT_EVERY_MS = 15_000
const PLACE = 'ravska:fire'
interface Remembered {
  id: string
  told: Fire
  lines: Line[]
}
/** More points of a line than this are asked for anew, thinned. */
const MOST_POINTS = 5000

/** A cook at its fire: asked every two seconds, readings from where they were left off; taps that wait to be sent. */
function useFire(id: Ref<string | undefined>) {
  const fire = shallowRef<Fire | null>(null)
  const lines = shallowRef<Line[]>([])
  const error = ref('')
  const lost = ref(false)
  let last = 0
  let kept = 0
  let got = { at: 0, now: 0, speed: 1 }
  let waits: ReturnType<typeof setTimeout> | undefined
  let gone = false
  let turn = Promise.resolve()
  /** One thing after the other: what was asked before a change must not be taken for what stands after it. */
  const inTurn = (one: () => Promise<void>) => (turn = turn.then(one, one))

  function take(told: Fire, whole: boolean) {
    const known = new Map(whole ? [] : lines.value.map((line) => [line.key, line]))
    for (const line of told.lines) {
      const key = `${line.device}/${line.channel}/${line.role}/${line.letter}`
      const before = known.get(key)
      const at = line.at.map((one) => one * 1000)
      known.set(key, {
        key,
        role: line.role,
        letter: line.letter,
        at: [...(before?.at ?? []), ...at],
        celsius: [...(before?.celsius ?? []), ...line.celsius],
      })
    }
    lines.value = [...known.values()]
    last = lines.value.some((line) => line.at.length > MOST_POINTS) ? 0 : told.last
    got = { at: Date.now(), now: Date.parse(told.now), speed: told.speed }
    fire.value = told
    lost.value = false
    error.value = ''
    if (Date.now() - kept < KEPT_EVERY_MS) return
    kept = Date.now()
    const shown: Remembered = { id: told.id, told, lines: lines.value }
    set(PLACE, shown).catch(() => {})
  }

  /** Show what was kept of this cook, where the page was loaded and no server answers. */
  async function remember(of: string) {
    const before = await get<Remembered>(PLACE).catch(() => undefined)
    if (before?.id !== of || fire.value || of !== id.value) return
    lines.value = before.lines
    got = { at: Date.now(), now: Date.now(), speed: 1 }
    fire.value = before.told
  }

  const look = () => inTurn(lookNow)
  async function lookNow() {
    clearTimeout(waits)
    const of = id.value
    if (of) {
      const after = last
      try {
        const told = await call(api.GET('/api/fire/{cook_id}', { params: { path: { cook_id: of }, query: { after } } }))
        if (of === id.value) take(told, after === 0)
      } catch (failure) {
        lost.value = !(failure instanceof Refusal)
        error.value = lost.value ? '' : sentenceOf(failure)
        if (lost.value && !fire.value) await remember(of)
      }
    }
    if (!gone) waits = setTimeout(() => void look(), ASKS_EVERY_MS)
  }
  watch(
    id,
    () => {
      last = 0
      fire.value = null
      lines.value = []
      void look()
    },
    { immediate: true },
  )
  void takeUp()
  onScopeDispose(() => {
    gone = true
    clearTimeout(waits)
  })

  const ticking = useTimestamp({ interval: 1000 })
  /** What the cook's own clock shows [ms]; it goes on while the server is away. */
  const now = computed(() => (fire.value ? got.now + Math.max(0, ticking.value - got.at) * got.speed : ticking.value))
  const clock = () => (fire.value ? got.now + (Date.now() - got.at) * got.speed : Date.now())

  /** Note something: now, or so many minutes ago. */
  async function tap(what: string, more: Partial<Tap> = {}, minutesAgo = 0) {
    if (!id.value) return
    const made: Tap = { key: newKey(), what, at: new Date(clock() - minutesAgo * 60_000).toISOString(), ...more }
    await put(id.value, made)
    void look()
    return made
  }
  /** Note a photo, made small in this page. */
  async function tapPhoto(jpeg: string, letter: string) {
    if (!id.value) return
    await put(id.value, { key: newKey(), what: 'photo', at: new Date(clock()).toISOString(), letter }, jpeg)
    void look()
  }
  /** Note it, and offer to take it back. */
  async function tapAndSay(says: string, what: string, more: Partial<Tap> = {}, minutesAgo = 0) {
    const made = await tap(what, more, minutesAgo)
    if (made) say(`${says}.`, () => void takeBack(made.key))
  }
  /** Note what was typed; return why it cannot be, so that it is said at its field. */
  async function noteTyped(says: string, what: string, more: Partial<Tap>, minutesAgo = 0): Promise<string> {
    if (!id.value) return ''
    const made: Tap = { key: newKey(), what, at: new Date(clock() - minutesAgo * 60_000).toISOString(), ...more }
    const refused = await sendNow(id.value, made)
    if (!refused) say(`${says}.`, () => void takeBack(made.key))
    void look()
    return refused
  }
  const takeBack = (of: string) => tap('undone', { of })
  /** The same thing at another time. */
  const moveTo = (one: Noted, at: string) =>
    tap(one.what, {
      of: one.key,
      at,
      letter: one.letter,
      note: one.note,
      word: one.word,
      ...(one.celsius === null ? {} : { celsius: `${one.celsius} °C` }),
      ...(one.count === null ? {} : { count: one.count }),
      ...(one.grams === null ? {} : { grams: `${one.grams} g` }),
    })
  /** Where the embers lie; before the fire has begun as it was said, if it was. */
  const embers = computed(
    () => fire.value?.reading?.embers ?? fire.value?.events.filter((one) => one.what === 'embers').at(-1)?.word ?? '',
  )
  const waiting = computed(() => outbox.value.filter((one) => one.cook === id.value).map((one) => one.tap))

  /** Do something whose answer is the fire as it stands then. */
  const change = (ask: () => Promise<Fire>) =>
    inTurn(async () => {
      try {
        const told = await ask()
        last = 0
        take({ ...told, lines: [] }, true)
      } catch (failure) {
        say(sentenceOf(failure))
      }
    }).then(look)
  /** Ask for everything anew. */
  const reload = () =>
    inTurn(() => {
      last = 0
      return Promise.resolve()
    }).then(look)
  return {
    id,
    fire,
    embers,
    lines,
    error,
    lost,
    now,
    reload,
    tap,
    tapPhoto,
    tapAndSay,
    noteTyped,
    takeBack,
    moveTo,
    waiting,
    change,
    look,
  }
}

type AtFire = ReturnType<typeof useFire>
const key: InjectionKey<AtFire> = Symbol('fire')

/** Give a station's parts the cook that they are of. */
export function provideFire(id: Ref<string | undefined>): AtFire {
  const found = useFire(id)
  provide(key, found)
  return found
}

export function useThisFire(): AtFire {
  const found = inject(key)
  if (!found) throw new Error('no fire here')
  return found
}
