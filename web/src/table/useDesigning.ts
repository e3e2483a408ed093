import { computed, ref, watch } from 'vue'
import { api, byField, call, type Schemas } from '../api/client'
import { KEY } from '../api/keys'
import { useAutosave } from '../edit/autosave'
import type { Design } from './useTable'

type Doc = Omit<Schemas['DesignDocument'], 'version' | 'cards'> & { cards: string }

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** A trial's design as it is typed. */
export const typed = (out: Design): Doc => {
  const tasted = out.pieces.filter((piece) => piece.tasted)
  const crossed = out.sides.length ? tasted : []
  return plain({
    question: out.question,
    kind: out.kind,
    letters: tasted.map((piece) => piece.letter),
    cards: String(out.cards),
    twin: out.twin,
    scales: out.scales,
    words: out.words,
    guess: out.guess,
    sides: out.sides,
    crossed: crossed.map((piece) => ({ letter: piece.letter, row: piece.row ?? 0, column: piece.column ?? 0 })),
    parts: out.parts,
  })
}

/** The design while it is changed: saved as it is typed, with what is wrong said at its field. */
export function useDesigning(design: () => Design | undefined, saved: (out: Design) => void) {
  const doc = ref<Doc | null>(null)
  const errors = ref<Record<string, string>>({})
  const autosave = useAutosave<Doc, Design>({
    key: () => `design:${design()?.trial_id}`,
    doc,
    typed,
    save: async (body, version, key) => {
      const params = { path: { trial_id: design()?.trial_id ?? '' } }
      const cards = Number(body.cards)
      const sent = {
        params,
        body: { ...body, cards: Number.isFinite(cards) ? cards : 0, version },
        headers: { [KEY]: key },
      }
      try {
        const out = await call(api.PUT('/api/trials/{trial_id}/design', sent))
        errors.value = {}
        return out
      } catch (failure) {
        errors.value = byField(failure)
        throw failure
      }
    },
    saved,
  })
  watch(design, (found, before) => {
    if (!found) return
    if (!doc.value) {
      doc.value = typed(found)
      autosave.begin(found)
    } else if (before && found.version !== before.version && autosave.state.value === 'saved') {
      doc.value = typed(found)
      autosave.begin(found)
    }
  }, { immediate: true }) // prettier-ignore
  watch(doc, (now, before) => now && before && now === before && autosave.touch(), { deep: true })
  return { doc, errors, autosave, conflict: computed(() => autosave.theirs.value) }
}
