import { computed, ref, type ComputedRef, type Ref } from 'vue'

/** How a text holds all that was typed, by the worst word: 0 as whole words, 1 as beginnings, 2 inside; -1 not at all. */
export function rankOf(text: string, typed: string): number {
  const words = fold(text).split(/[^\p{L}\p{N}]+/u)
  let worst = 0
  for (const word of fold(typed).split(/\s+/).filter(Boolean)) {
    if (words.includes(word)) continue
    if (words.some((other) => other.startsWith(word))) worst = Math.max(worst, 1)
    else if (words.some((other) => other.includes(word))) worst = 2
    else return -1
  }
  return worst
}

const fold = (text: string) => text.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, '')

/** What holds the typed words, best first; of equals what begins with all that was typed, then the earlier. */
export function ranked<Item>(items: Item[], words: (item: Item) => string, typed: string): Item[] {
  const asTyped = fold(typed.trim())
  const found = items.map((item, at) => {
    const text = words(item)
    return { item, at, rank: rankOf(text, typed), other: Number(!fold(text).startsWith(asTyped)) }
  })
  return found
    .filter((one) => one.rank >= 0)
    .sort((a, b) => a.rank - b.rank || a.other - b.other || a.at - b.at)
    .map((one) => one.item)
}

/** A list to choose from that follows what is typed into its box; nothing typed, or what is chosen, shows it whole. */
export function useRanked<Item>(items: Ref<Item[]>, words: (item: Item) => string, chosen: () => string | undefined) {
  const search = ref('')
  const shown: ComputedRef<Item[]> = computed(() => {
    const typed = search.value ?? ''
    return typed === chosen() ? items.value : ranked(items.value, words, typed)
  })
  return { search, shown }
}
