import { useQueryClient } from '@tanstack/vue-query'
import { computed, inject, type InjectionKey, shallowRef } from 'vue'
import { api, call, Refusal, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { newKey } from '../api/keys'
import { say } from '../kit/notice'
import { sure } from '../kit/sure'

export type Batch = Schemas['BatchOut']

/** A batch being weighed: as the server has it. Every pour is there before the screen goes on. */
export function useBatch(id: string) {
  const queries = useQueryClient()
  const batch = shallowRef<Batch | null>(null)
  const loadError = shallowRef('')
  const path = { batch_id: id }

  async function load() {
    try {
      batch.value = await call(api.GET('/api/batches/{batch_id}', { params: { path } }))
      loadError.value = ''
    } catch (failure) {
      loadError.value = sentenceOf(failure)
    }
  }
  void load()

  const current = computed(() => batch.value?.lines.find((line) => line.id === sure(batch.value).current) ?? null)

  const doing = useChange(
    `batch ${id}`,
    async (version: number, work: (version: number) => Promise<Batch>, before: () => void) => {
      const found = await work(version)
      before()
      batch.value = found
      void refresh(queries, ['batches'])
      return true
    },
    {
      refused: (failure) => {
        if (!(failure instanceof Refusal && failure.problem.theirs)) return say(sentenceOf(failure))
        batch.value = failure.problem.theirs as unknown as Batch
        say('This batch was changed in another window; here is how it stands. Repeat the step if it is still needed.')
      },
    },
  )
  const { busy } = doing
  /** Do one thing to the batch; in a conflict the other version is taken, as only pours are added. */
  async function act(work: (version: number) => Promise<Batch>, before = () => {}): Promise<boolean> {
    // what is pressed while a weight is noted was meant for what stood there before
    if (busy.value || !batch.value) return false
    return (await doing(batch.value.version, work, before)) ?? false
  }

  // a key stays the same until its pour has arrived, so that one sent twice counts once
  let key = newKey()
  async function pour(line: string, grams: number, how: Schemas['PourDocument']['how'], noted: () => void) {
    const sent = key
    const body = { line, grams, how, key: sent }
    const done = await act(
      (version) => call(api.POST('/api/batches/{batch_id}/pour', { params: { path }, body: { ...body, version } })),
      noted,
    )
    if (done) key = newKey()
    return done
  }
  async function pourByHand(line: string, amount: string, out = false) {
    const sent = key
    const done = await act((version) =>
      call(
        api.POST('/api/batches/{batch_id}/pour-by-hand', {
          params: { path },
          body: { version, line, amount, out, key: sent },
        }),
      ),
    )
    if (done) key = newKey()
    return done
  }
  const takeBack = () =>
    act((version) => call(api.POST('/api/batches/{batch_id}/take-back', { params: { path }, body: { version } })))
  const rescue = (line: string, choice: Schemas['RescueDocument']['choice']) =>
    act((version) =>
      call(api.POST('/api/batches/{batch_id}/rescue', { params: { path }, body: { version, line, choice } })),
    )
  const enough = (line: string) =>
    act((version) => call(api.POST('/api/batches/{batch_id}/enough', { params: { path }, body: { version, line } })))
  const finish = (size_ml: number) =>
    act((version) => call(api.POST('/api/batches/{batch_id}/finish', { params: { path }, body: { version, size_ml } })))
  return { batch, current, loadError, busy, load, act, pour, pourByHand, takeBack, rescue, enough, finish, path }
}

export type BatchOnScale = ReturnType<typeof useBatch>

/** The batch on the scale, for all that is drawn within the station. */
export const SCALE: InjectionKey<BatchOnScale> = Symbol('scale')
export function scaleHere(): BatchOnScale {
  const bench = inject(SCALE)
  if (!bench) throw new Error('No batch is provided here.')
  return bench
}
