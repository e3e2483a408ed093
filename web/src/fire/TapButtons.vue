<script setup lang="ts">
import { computed, ref } from 'vue'
import { usePreferences } from '../app/preferences'
import Field from '../kit/Field.vue'
import { useThisFire } from './useFire'
import PhotoTap from './PhotoTap.vue'
import { FIRST, LATER } from './taps'

/** One tap notes it now; held, it asks how long ago. What takes a word shows its words first. */
const { fire, tapAndSay, noteTyped } = useThisFire()
const { preferences } = usePreferences()
const HELD_MS = 550
const AGO = [5, 10, 20, 40, 60]
const TYPED = new Set(['read', 'set', 'weight', 'note'])

const kinds = computed(() => new Map((fire.value?.kinds ?? []).map((kind) => [kind.key, kind])))
const pieces = computed(() => fire.value?.reading?.pieces ?? [])
const chosen = ref('')
/** Whose a tap of a piece is: the one that was chosen, else the first that is on. */
const letter = computed(() => {
  const there = pieces.value.find((piece) => piece.letter === chosen.value)
  return (there ?? pieces.value.find((piece) => piece.state === 'on') ?? pieces.value[0])?.letter ?? ''
})
const all = ref(false)
const open = ref<{ what: string; ago: boolean } | null>(null)
const ago = ref(0)
const text = ref('')
const word = ref('')
const refused = ref('')
const more = ref(false)
let holds: ReturnType<typeof setTimeout> | undefined
let held = false

function press(what: string) {
  held = false
  clearTimeout(holds)
  holds = setTimeout(() => {
    held = true
    begin(what, true)
  }, HELD_MS)
}
const release = () => clearTimeout(holds)
function begin(what: string, asksAgo: boolean) {
  open.value = { what, ago: asksAgo }
  ago.value = asksAgo ? 20 : 0
  text.value = refused.value = ''
  word.value = what === 'read' ? 'centre' : ''
}
async function touch(what: string) {
  clearTimeout(holds)
  if (held) return
  const kind = kinds.value.get(what)
  if (kind?.words.length || TYPED.has(what)) begin(what, false)
  else await note(what)
}
async function note(what: string, said = '', minutes = 0) {
  const kind = kinds.value.get(what)
  if (!kind) return
  const ofPiece = kind.of === 'piece' || (what === 'read' && (said === 'centre' || said === 'surface'))
  const whose = ofPiece
    ? all.value && !TYPED.has(what)
      ? pieces.value.filter((one) => one.state === 'on').map((one) => one.letter)
      : [letter.value]
    : ['']
  const scale = preferences.value.temperature
  const typed = text.value.trim()
  const degrees = /[cf]\s*$/i.test(typed) ? typed : `${typed} °${scale}`
  for (const one of whose) {
    const says = `${one ? `${one}: ` : ''}${kind.button}${said ? `, ${said}` : ''}${minutes ? `, ${minutes} min ago` : ''}`
    const of = {
      letter: one,
      word: said,
      ...(what === 'note' ? { note: typed } : {}),
      ...(what === 'weight' ? { grams: typed } : {}),
      ...(what === 'read' || what === 'set' ? { celsius: degrees } : {}),
    }
    if (!TYPED.has(what)) await tapAndSay(says, what, of, minutes)
    else if ((refused.value = await noteTyped(says, what, of, minutes))) return
  }
  open.value = null
  text.value = ''
}
const asked = computed(() => (open.value ? kinds.value.get(open.value.what) : undefined))
const label = computed(() => {
  const what = open.value?.what
  if (what === 'note') return 'What is to be noted'
  if (what === 'weight') return `${letter.value} weighs`
  return `It shows [°${preferences.value.temperature}]`
})
const buttons = computed(() => [...FIRST, ...(more.value ? LATER : [])].flatMap((key) => kinds.value.get(key) ?? []))
</script>

<template>
  <section class="taps" aria-label="Note it by a tap">
    <div v-if="pieces.length > 1" class="whose" role="group" aria-label="Of which piece">
      <button
        v-for="piece in pieces"
        :key="piece.letter"
        type="button"
        :aria-pressed="!all && piece.letter === letter"
        @click="((chosen = piece.letter), (all = false))"
      >
        {{ piece.letter }}
      </button>
      <button type="button" :aria-pressed="all" @click="all = true">All</button>
    </div>
    <div v-if="open && asked" class="plate asked">
      <b>{{ asked.button }}</b>
      <div v-if="asked.words.length" class="words">
        <button
          v-for="one in asked.words"
          :key="one"
          type="button"
          :aria-pressed="word === one"
          @click="TYPED.has(open.what) ? (word = one) : note(open.what, one, ago)"
        >
          {{ one }}
        </button>
      </div>
      <form v-if="TYPED.has(open.what)" class="typed" @submit.prevent="note(open.what, word, ago)">
        <Field v-model="text" :label="label" :error="refused" autofocus />
        <button type="submit" class="go">Note it</button>
      </form>
      <div class="words" role="group" aria-label="When">
        <button type="button" :aria-pressed="ago === 0" @click="ago = 0">now</button>
        <button v-for="one in AGO" :key="one" type="button" :aria-pressed="ago === one" @click="ago = one">
          {{ one }} min ago
        </button>
      </div>
      <button
        v-if="!asked.words.length && !TYPED.has(open.what)"
        type="button"
        class="go"
        @click="note(open.what, '', ago)"
      >
        Note it
      </button>
      <button type="button" class="link" @click="open = null">Leave it</button>
    </div>
    <div class="grid">
      <button
        v-for="kind in buttons"
        :key="kind.key"
        type="button"
        class="tap"
        @pointerdown="press(kind.key)"
        @pointerup="release"
        @pointerleave="release"
        @contextmenu.prevent
        @click="touch(kind.key)"
      >
        {{ kind.button }}
      </button>
      <PhotoTap class="tap" :letter="letter" />
      <button type="button" class="tap more" :aria-expanded="more" @click="more = !more">
        {{ more ? 'Fewer' : 'More' }}
      </button>
    </div>
    <p class="muted">A tap notes it now; hold a button to say how long ago.</p>
  </section>
</template>

<style scoped>
.taps {
  display: grid;
  gap: var(--s-8);
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-8);
}
.tap {
  min-height: 52px;
  border-radius: 14px;
  background: var(--plate) !important;
  border: 1.5px solid var(--line-strong) !important;
  font-weight: 650 !important;
  touch-action: manipulation;
  user-select: none;
}
.tap:active {
  background: var(--tint) !important;
}
.more {
  color: var(--link) !important;
}
.whose,
.words {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
}
.whose button,
.words button {
  min-height: var(--tap);
  min-width: 46px;
  padding: 0 var(--s-12) !important;
  border-radius: 12px;
  border: 1.5px solid var(--line-strong) !important;
}
[aria-pressed='true'] {
  background: var(--cobalt) !important;
  color: var(--on-cobalt) !important;
}
.asked {
  padding: var(--s-12) var(--s-14);
  display: grid;
  gap: var(--s-8);
}
.typed {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: var(--s-8);
  align-items: end;
}
.go {
  min-height: var(--tap);
  padding: 0 var(--s-16) !important;
  border-radius: 12px;
  background: var(--cobalt) !important;
  color: var(--on-cobalt) !important;
  font-weight: 650 !important;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
@media (max-width: 720px) {
  .grid {
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: var(--s-6);
  }
  .tap {
    min-height: 46px;
    font-size: var(--t-m) !important;
  }
  .taps > p {
    display: none;
  }
}
</style>
