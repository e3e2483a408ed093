<script setup lang="ts">
import { computed } from 'vue'
import { usePreferences } from '../app/preferences'
import PieceBadge from '../draw/PieceBadge.vue'
import { duration, time, unbroken } from '../kit/units'
import { useThisFire, type PieceStands } from './useFire'

/** Large temperatures: every piece and the pit, how fast it rises, what is the matter. */
const { fire, now } = useThisFire()
const { preferences, show } = usePreferences()
const pieces = computed(() => fire.value?.reading?.pieces ?? [])
const pit = computed(() => fire.value?.reading?.pit ?? null)
const scale = computed(() => preferences.value.temperature)
/** A temperature as large as it is said: to a tenth below 100 °C, as probes show it. */
function large(celsius: number): string {
  if (scale.value === 'F') return String(Math.round(celsius * 1.8 + 32))
  return celsius < 100 ? celsius.toFixed(1) : String(Math.round(celsius))
}
const perHour = (k: number) => `${(scale.value === 'F' ? k * 1.8 : k).toFixed(1)} °${scale.value} an hour`
/** What is the matter, in short: what to do about it stands in its alarm. */
const FAULTS: Record<string, string> = {
  dead: 'its probe is silent',
  out: 'its probe is out of the meat',
  slipping: 'its probe has slipped',
}
function about(piece: PieceStands): string {
  if (piece.state === 'waiting') return 'not on yet'
  if (piece.state === 'served') return 'served'
  if (piece.fault) return FAULTS[piece.fault.kind] ?? piece.fault.says
  if (piece.state === 'off') {
    return piece.off_at
      ? `off since ${time(piece.off_at)}, ${duration((now.value - Date.parse(piece.off_at)) / 1000)}`
      : 'off'
  }
  const rate = piece.rate_k_h === null ? '' : perHour(piece.rate_k_h)
  if (piece.stall_at) return `${rate}: the stall since ${time(piece.stall_at)}, water cools it`
  if (piece.typed && piece.centre_at) return [`read at ${time(piece.centre_at)}`, rate].filter(Boolean).join(', ')
  const until = piece.ends ? show.value.sentence(piece.ends) : ''
  return [rate, piece.wrapped ? 'wrapped' : '', until].filter(Boolean).join(', ') || 'no probe'
}
const pitSays = computed(() => {
  const of = pit.value
  if (!of) return ''
  if (of.celsius === null)
    return of.aimed_c === null ? 'no probe' : `no probe; aimed at ${show.value.temperature(of.aimed_c)}`
  if (of.low_c === null || of.high_c === null) return ''
  const band = `${show.value.temperature(of.low_c)} to ${show.value.temperature(of.high_c)}`
  const where = of.celsius < of.low_c ? 'below its band' : of.celsius > of.high_c ? 'above its band' : 'in its band'
  const under = of.under_s >= 60 ? `; ${duration(of.under_s)} under it so far` : ''
  return `${of.read_at ? `read at ${time(of.read_at)}, ` : ''}${where}, ${band}${under}`
})
</script>

<template>
  <section class="heats" aria-label="Temperatures">
    <div
      v-for="piece in pieces"
      :key="piece.letter"
      class="heat"
      :class="{ fault: piece.fault, off: piece.state !== 'on' }"
    >
      <PieceBadge :letter="piece.letter" />
      <div>
        <p class="number">
          <template v-if="piece.centre_c !== null"
            >{{ large(piece.centre_c) }}<small>°{{ scale }}</small></template
          >
          <template v-else>–</template>
        </p>
        <p class="muted">{{ unbroken(about(piece)) }}</p>
      </div>
    </div>
    <div class="heat pit">
      <b>pit</b>
      <div>
        <p class="number">
          <template v-if="pit && pit.celsius !== null"
            >{{ large(pit.celsius) }}<small>°{{ scale }}</small></template
          >
          <template v-else>–</template>
        </p>
        <p class="muted">{{ unbroken(pitSays) }}</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.heats {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: var(--s-8) var(--s-14);
}
.heat {
  display: flex;
  gap: var(--s-10);
  align-items: flex-start;
  min-width: 0;
}
.heat > .badge {
  margin-top: var(--s-8);
}
p {
  margin: 0;
}
.number {
  font-family: var(--display);
  font-weight: 700;
  font-size: 40px;
  line-height: 1.05;
  font-variant-numeric: tabular-nums;
}
.number small {
  font-size: var(--t-xl);
  margin-left: var(--s-2);
}
.muted {
  font-size: var(--t-s);
  line-height: 1.3;
}
.pit b,
.pit .number {
  color: var(--ember);
}
.pit b {
  margin-top: var(--s-12);
}
.fault .number,
.fault .muted {
  color: var(--stop);
}
.off .number {
  color: var(--muted);
}
@media (max-width: 720px) {
  .heats {
    grid-template-columns: repeat(auto-fit, minmax(104px, 1fr));
  }
  .heat {
    display: grid;
    gap: 0;
  }
  .number {
    font-size: 34px;
  }
  .heat > .badge,
  .pit b {
    margin: 0;
  }
  .muted {
    font-size: var(--t-xs);
  }
}
</style>
