import { computed, reactive, ref, watch } from 'vue'
import { useChange } from '../api/change'
import { api, byField, call, sentenceOf } from '../api/client'
import * as unsent from '../edit/unsent'
import { asDocument, blankCard, stepsOf, type Filled } from './card'
import { handIn } from './cardsOut'
import type { Table } from './useTable'

/** One taster's card while it is filled: kept at every tap, whatever becomes of the page or of the server. */
export function useCard(table: () => Table, taster: string, done: (table: Table | null, name: string) => void) {
  /** Each taster's card is kept by itself: a phone that is handed on takes nobody's answers along. */
  const keyOf = (name: string) => `card:${table().trial_id}:${name.toLowerCase()}`
  const card = reactive<Filled>({ ...blankCard(), taster })

  const at = ref(0)
  /** The card as it was before each tap, the last one last. */
  const taps = ref<string[]>([])
  let now = JSON.stringify(card)
  let undoing = false
  watch(card, () => {
    if (at.value > 0 && card.served.length) unsent.remember(keyOf(card.taster), card)
    const before = JSON.parse(now) as Filled
    // who tastes is no answer of the card
    if (!undoing && before.taster === card.taster && before.served.length) taps.value.push(now)
    now = JSON.stringify(card)
    undoing = false
  })
  function undo() {
    const before = taps.value.pop()
    if (!before) return
    undoing = true
    Object.assign(card, JSON.parse(before) as Filled)
  }
  const errors = ref<Record<string, string>>({})
  const steps = computed(() => stepsOf(table(), card))
  const step = computed(() => steps.value[Math.min(at.value, steps.value.length - 1)] ?? 'who')
  const isLast = computed(() => at.value >= steps.value.length - 1)

  /** Who tastes has said so: they are given their order, and a card of their own. */
  const begin = useChange(
    'trial',
    async () => {
      errors.value = {}
      const name = card.taster.trim()
      const mine = table().servings.find((one) => one.taster.toLowerCase() === name.toLowerCase())
      if (mine?.state === 'in') {
        errors.value = { taster: `${mine.taster} has a card already; take it back first or use another name.` }
        return
      }
      if (mine?.order.length) {
        await take(mine.taster, mine.order, mine.short || card.short)
        return
      }
      const params = { path: { trial_id: table().trial_id } }
      const told = await call(
        api.POST('/api/trials/{trial_id}/seat', { params, body: { taster: name, short: card.short } }),
      )
      const given = told.servings.find((one) => one.taster.toLowerCase() === name.toLowerCase())
      await take(given?.taster ?? name, given?.order ?? [], given?.short ?? card.short)
    },
    { refused },
  )
  async function take(name: string, order: string[], short: boolean) {
    const left = unsent.recall<Filled>(keyOf(name)) ?? (await unsent.leftBehind<Filled>(keyOf(name)))
    // what was filled in of other plates is of no use for these
    const same = left && [...left.served].sort().join() === [...order].sort().join()
    Object.assign(card, blankCard(), same ? left : {}, { taster: name, served: order, short })
    taps.value = []
    at.value = 1
  }
  function decides(said: string) {
    errors.value = { decides: said }
    at.value = Math.max(1, steps.value.indexOf('decides'))
  }
  function refused(failure: unknown) {
    errors.value = byField(failure)
    const said = errors.value.odd ?? (table().kind === 'ranking' ? errors.value.scores : undefined)
    if (said) return decides(said)
    if (!Object.keys(errors.value).length) errors.value = { all: sentenceOf(failure) }
    if (errors.value.taster) at.value = 0
  }

  const hand = useChange(
    'trial',
    async (early: boolean) => {
      // nothing chosen would be read as no preference, which has to be said
      if (!early && !card.short && table().kind === 'preference' && !card.prefers) {
        decides('Say which plate you would rather have again, or that you have no preference.')
        return
      }
      const { taster: name } = card
      const told = await handIn(table().trial_id, asDocument(card, early))
      at.value = 0
      Object.assign(card, blankCard())
      unsent.forget(keyOf(name))
      done(told, name)
    },
    { refused },
  )
  const others = computed(() =>
    Object.entries(errors.value)
      .filter(([field]) => !['taster', 'decides'].includes(field))
      .map(([, sentence]) => sentence),
  )
  return { card, at, step, steps, isLast, errors, others, begin, hand, taps, undo }
}
