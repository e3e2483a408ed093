<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { embersOf } from './embers'
import GrateSaid from './GrateSaid.vue'
import { useThisFire, type PieceStands } from './useFire'

/** The grate from above: pieces where they lie, near or far from the embers; drag to move, tap to turn. */
const { fire, embers, tapAndSay } = useThisFire()
const pieces = computed(() => (fire.value?.reading?.pieces ?? []).filter((piece) => piece.state === 'on'))
const SIZE = 300
const MIDDLE = SIZE / 2
const REACH = 138
const board = useTemplateRef<SVGSVGElement>('board')
const dragged = ref<{ letter: string; x: number; y: number; moved: boolean } | null>(null)
const shapes = computed(() => new Map((fire.value?.pieces ?? []).map((piece) => [piece.letter, piece])))
/** How large a piece is by its own sides, the whole grate 57 cm across. */
function natural(letter: string) {
  const of = shapes.value.get(letter)
  const scale = (2 * REACH) / 57
  const rows = Math.ceil(Math.sqrt(of?.count ?? 1))
  return {
    rx: Math.min(92, Math.max(22, ((of?.length_cm ?? 20) * rows * scale) / 2)),
    ry: Math.min(70, Math.max(18, ((of?.width_cm ?? 12) * rows * scale) / 2)),
  }
}
/** What does not lie side by side as large as it is, is drawn smaller. */
const smaller = computed(() => {
  const covered = pieces.value.map(({ letter }) => natural(letter)).reduce((sum, { rx, ry }) => sum + rx * ry, 0)
  return Math.min(1, Math.sqrt((0.42 * REACH ** 2) / Math.max(1, covered)))
})
const sides = (letter: string) => {
  const { rx, ry } = natural(letter)
  return { rx: rx * smaller.value, ry: ry * smaller.value }
}
const at = (piece: PieceStands) => {
  const to = dragged.value
  return to?.letter === piece.letter ? { x: to.x, y: to.y } : { x: piece.x, y: piece.y }
}
const place = (piece: PieceStands) => ({ x: at(piece).x * SIZE, y: at(piece).y * SIZE })
function from(event: PointerEvent) {
  const box = board.value?.getBoundingClientRect()
  if (!box) return { x: 0.5, y: 0.5 }
  const inside = (value: number) => Math.min(0.92, Math.max(0.08, value))
  return { x: inside((event.clientX - box.left) / box.width), y: inside((event.clientY - box.top) / box.height) }
}
function down(piece: PieceStands, event: PointerEvent) {
  board.value?.setPointerCapture(event.pointerId)
  dragged.value = { letter: piece.letter, x: piece.x, y: piece.y, moved: false }
}
function move(event: PointerEvent) {
  const to = dragged.value
  if (!to) return
  const next = from(event)
  if (to.moved || Math.hypot(next.x - to.x, next.y - to.y) > 0.03)
    dragged.value = { letter: to.letter, ...next, moved: true }
}
async function up() {
  const to = dragged.value
  if (!to) return
  if (to.moved) await moveTo(to.letter, to.x, to.y)
  else await tapAndSay(`${to.letter} turned`, 'turn', { letter: to.letter })
  dragged.value = null
}
const moveTo = (letter: string, x: number, y: number) => tapAndSay(`${letter} moved`, 'move', { letter, x, y })
function nudge(piece: PieceStands, event: KeyboardEvent) {
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-0.06, 0],
    ArrowRight: [0.06, 0],
    ArrowUp: [0, -0.06],
    ArrowDown: [0, 0.06],
  }
  const step = by[event.key]
  if (step) {
    event.preventDefault()
    const inside = (value: number) => Math.min(0.92, Math.max(0.08, value))
    void moveTo(piece.letter, inside(piece.x + step[0]), inside(piece.y + step[1]))
  } else if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    void tapAndSay(`${piece.letter} turned`, 'turn', { letter: piece.letter })
  }
}
const coals = computed(() => embersOf(embers.value, SIZE))
const said = (piece: PieceStands) =>
  [
    `${piece.letter}, ${piece.name}`,
    piece.near ? 'near the embers' : 'away from the embers',
    piece.wrapped ? 'wrapped' : '',
    piece.side,
    piece.vessel,
    piece.turned ? `turned ${piece.turned} times` : '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <section class="plate grate" aria-label="Where it lies">
    <h2>Where it lies</h2>
    <svg
      ref="board"
      :viewBox="`0 0 ${SIZE} ${SIZE}`"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="dragged = null"
    >
      <defs>
        <clipPath id="grate"><circle :cx="MIDDLE" :cy="MIDDLE" :r="REACH" /></clipPath>
      </defs>
      <circle class="kettle" :cx="MIDDLE" :cy="MIDDLE" :r="REACH" />
      <g clip-path="url(#grate)">
        <circle
          v-for="one in coals"
          :key="one.key"
          :cx="one.x"
          :cy="one.y"
          :r="one.r"
          class="ember"
          :class="`glow-${one.bright}`"
        />
        <path v-for="n in 22" :key="`b${n}`" class="bar" :d="`M0 ${n * 13}H${SIZE}`" />
      </g>
      <circle class="rim" :cx="MIDDLE" :cy="MIDDLE" :r="REACH" />
      <g
        v-for="piece in pieces"
        :key="piece.letter"
        class="piece"
        :class="[`of-${piece.letter.toLowerCase()}`, { wrapped: piece.wrapped }]"
        :transform="`translate(${place(piece).x} ${place(piece).y}) rotate(${piece.turned * 12 - 6})`"
        tabindex="0"
        role="button"
        :aria-label="`${said(piece)}; Enter turns it, arrow keys move it`"
        @pointerdown="down(piece, $event)"
        @keydown="nudge(piece, $event)"
      >
        <ellipse
          v-if="piece.vessel && !piece.wrapped && piece.vessel !== 'on the grate'"
          class="vessel"
          :rx="sides(piece.letter).rx + 6"
          :ry="sides(piece.letter).ry + 6"
        />
        <ellipse class="meat" v-bind="sides(piece.letter)" />
        <circle r="14" class="disc" />
        <text y="5" text-anchor="middle">{{ piece.letter }}</text>
      </g>
    </svg>
    <p v-if="pieces.length" class="muted">Drag a piece to move it, tap it to turn it.</p>
    <p v-else class="muted">Nothing is on it yet.</p>
    <p
      v-for="piece in pieces.filter((one) => one.side || (one.vessel && one.vessel !== 'on the grate'))"
      :key="`v${piece.letter}`"
      class="lies"
    >
      <b>{{ piece.letter }}</b> {{ [piece.side, piece.vessel].filter(Boolean).join(', ') }}
    </p>
    <GrateSaid />
  </section>
</template>

<style scoped>
.grate {
  padding: var(--s-12) var(--s-16);
}
svg {
  display: block;
  width: min(100%, 300px);
  margin: var(--s-6) auto;
  touch-action: none;
}
.kettle {
  fill: #202327;
}
.rim {
  fill: none;
  stroke: var(--rim);
  stroke-width: 3;
}
.bar {
  stroke: #8b93a1;
  stroke-width: 1.4;
}
.ember {
  fill: #b43d0b;
}
.glow-1 {
  fill: #f2762b;
}
.glow-2 {
  fill: #ffb066;
}
.piece {
  cursor: grab;
}
.piece .vessel {
  fill: none;
  stroke: #aeb4bd;
  stroke-width: 3;
  stroke-dasharray: none;
}
.piece .meat {
  fill: #7a3a2b;
  stroke: currentColor;
  stroke-width: 4;
}
.piece.of-b .meat,
.piece.of-d .meat,
.piece.of-f .meat {
  stroke-dasharray: 8 5;
}
.wrapped .meat {
  fill: #aeb4bd;
}
.disc {
  fill: #16181b;
}
.piece text {
  fill: #fff;
  font-weight: 700;
  font-size: var(--t-m);
}
.of-a {
  color: #93b4ff;
}
.of-b {
  color: #ecc35a;
}
.of-c {
  color: #5fd3ae;
}
.of-d {
  color: #f29acb;
}
.of-e {
  color: #ff9e6b;
}
.of-f {
  color: #6fcbe8;
}
.of-g {
  color: #cfd3da;
}
.of-h {
  color: #c3a5f0;
}
p {
  margin: 0 0 var(--s-8);
  font-size: var(--t-s);
  text-align: center;
}
</style>
