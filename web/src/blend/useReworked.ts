import { useDebounceFn } from '@vueuse/core'
import { ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'
import { say } from '../kit/notice'
import type { BlendOnBench } from './useBlend'
import { useProposal } from './useProposal'
import { sure } from '../kit/sure'

/** What a blend is to be adapted to: a meat, a fire, what cannot be eaten, what is not at hand. */
export type Adapting = Pick<Schemas['AdaptWhatIf'], 'for_meat' | 'for_fire' | 'without' | 'lacking'>

/** What is proposed for the blend on the bench, aimed or adapted, and taken, made a branch or left. */
export function useReworked(bench: BlendOnBench, id: string) {
  const { doc, stored, reading, autosave } = bench
  const { proposed, errors: refusals, failed, propose, leave } = useProposal()
  const router = useRouter()
  const aiming = ref(false)
  const title = (words: string) => ({
    title: words,
    name: `${sure(doc.value).name}, ${words.toLowerCase()}`.slice(0, 80),
  })
  const aim = useDebounceFn(() => {
    if (!doc.value?.targets?.length || !doc.value.lines.length) return leave()
    void propose({ by: 'aim', title: 'The nearest blend', name: title('aimed').name }, (signal) =>
      call(api.POST('/api/blends/aim', { body: bench.body(), signal })),
    )
  }, 90)
  watch([() => doc.value?.targets, aiming], () => (aiming.value ? aim() : proposed.value?.by === 'aim' && leave()), {
    deep: true,
  })

  const skip = ref<string[]>([])
  const adapting = shallowRef<Adapting | null>(null)
  function adapt(to: Adapting) {
    adapting.value = to
    skip.value = []
    askAdapt()
  }
  function askAdapt() {
    const to = adapting.value
    if (!to || !(to.for_meat || to.for_fire || to.without?.length || to.lacking?.length)) return leave()
    const words = [
      to.for_meat && `for ${to.for_meat}`,
      to.for_fire && `over ${to.for_fire}`,
      ...(to.without ?? []).map((x) => `without ${x}`),
    ]
    const said = words.filter(Boolean).join(', ') || 'without what is not at hand'
    void propose({ by: 'adapt', ...title(said), title: `Adapted ${said}` }, (signal) =>
      call(api.POST('/api/blends/adapt', { body: { ...bench.body(), ...to, skip: skip.value }, signal })),
    )
  }
  // what is proposed goes on from what is on the bench
  watch(reading, () => {
    if (aiming.value) void aim()
    else if (proposed.value?.by === 'adapt') askAdapt()
  })

  function take() {
    const answer = sure(proposed.value).answer
    bench.take(answer, answer.reading ?? null)
    if (adapting.value?.for_fire && sure(proposed.value).by === 'adapt') sure(doc.value).fire = adapting.value.for_fire
    say(answer.difference.words.slice(0, 4).join(', ') || 'Taken.', () => bench.history.undo())
    aiming.value = false
    leave()
  }
  const branch = useChange('blends', async () => {
    const { answer, name, by } = sure(proposed.value)
    await autosave.flush()
    const { lines, written, base, total } = answer
    const fire = (by === 'adapt' && adapting.value?.for_fire) || sure(doc.value).fire
    const document = { ...bench.body(), lines, written, base, total, fire }
    const body = { version: sure(stored.value).version, name, document }
    const path = { blend_id: id }
    const made = await call(api.POST('/api/blends/{blend_id}/branch', { params: { path }, body }))
    await router.push(`/blend/${made.id}`)
  })

  return { proposed, refusals, failed, leave, aiming, skip, adapt, askAdapt, take, branch }
}
