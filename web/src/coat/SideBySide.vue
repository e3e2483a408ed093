<script setup lang="ts">
import { mdiAlert, mdiOctagon, mdiShieldCheckOutline } from '@mdi/js'
import { useQuestion } from '../api/question'
import { computed, ref, watch } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import { usePreferences } from '../app/preferences'
import { duration, little, percent, unbroken } from '../kit/units'
import Why from '../kit/Why.vue'
import Select from '../kit/Select.vue'
import { coatHere } from './useCoat'

/** The same joint seasoned in every way, on one picture; two of them become pieces that are tasted. */
const coat = coatHere()
const emit = defineEmits<{ done: [] }>()
const { catalogue } = useCatalogue()
const { show } = usePreferences()

const KINDS = [
  ['dry rub', 'Rub'],
  ['marinade', 'Marinade'],
  ['injection', 'Injection'],
] as const
const wanted = ref<Record<string, string | undefined>>({})
/** What was chosen here goes first, then what lies on the other pieces of the board. */
const ids = computed(() => {
  const onBoard = (coat.doc.value?.pieces ?? []).flatMap((piece) => piece.layers.map((layer) => layer.blend_id))
  const known = [...Object.values(wanted.value), ...onBoard].filter((id): id is string => !!id)
  return [...new Set(known)].slice(0, 12)
})
const ofKind = (kind: string) => [
  { value: '', title: 'as on the board, or the latest' },
  ...coat.blends.value.filter((one) => one.kind === kind).map(({ id, name }) => ({ value: id, title: name })),
]
const asked = computed(() =>
  JSON.stringify({ piece: coat.piece.value, blend_ids: ids.value, appetite: coat.doc.value?.appetite }),
)
const {
  answer: sides,
  says,
  ask,
} = useQuestion({
  ask: (signal) => call(api.POST('/api/cooks/coat/side-by-side', { body: JSON.parse(asked.value), signal })),
})
watch(asked, () => ask(), { immediate: true })
const chosen = ref<string[]>([])
function choose(key: string) {
  if (chosen.value.includes(key)) chosen.value = chosen.value.filter((one) => one !== key)
  else chosen.value = [...chosen.value, key].slice(-2)
}
const how = ref<'split' | 'two'>('split')
const make = useChange('cooks', async () => {
  const [first, second] = (sides.value ?? []).map((one) => one.key).filter((key) => chosen.value.includes(key))
  if (second && (await coat.makePair([first, second], how.value === 'split', ids.value))) emit('done')
})
const MOST_SALT = 2.6
const salt = (value: number) => `${(Math.min(value, MOST_SALT) / MOST_SALT) * 100}%`
/** The zone most people like: from where the light one ends to where the usual one does. */
const zone = computed(() => {
  const zones = catalogue.value?.zones ?? []
  const at = zones.findIndex((one) => one.name === 'usual')
  return at > 0 ? [zones[at - 1].below_percent ?? 0, zones[at].below_percent ?? MOST_SALT] : [0, 0]
})
const longest = computed(() => Math.max(1, ...(sides.value ?? []).map((one) => one.ahead?.value ?? 0)))
const DEEP_CM = 2
const WIDE = 150
const HIGH = 46
/** What sets the height of all depth pictures: the salt under the first millimetre, whose surface outruns all else. */
const top = computed(() =>
  Math.max(
    0.5,
    ...(sides.value ?? []).flatMap((one) =>
      one.percent.filter((_, n) => one.depths_cm[n] >= 0.15 && one.depths_cm[n] <= DEEP_CM),
    ),
  ),
)
function curve(one: Schemas['WayReadingOut'], percents: number[]): string {
  const points = one.depths_cm
    .map((cm, n) => [cm, percents[n]])
    .filter(([cm]) => cm <= DEEP_CM * 1.2)
    .map(
      ([cm, value]) =>
        `L${((cm / DEEP_CM) * WIDE).toFixed(1)} ${(HIGH * (1 - Math.min(1, value / top.value))).toFixed(1)}`,
    )
  return points.length ? `M0 ${HIGH}${points.join('')}L${WIDE * 1.2} ${HIGH}Z` : ''
}
const MOST_WATER = 5
const MOST_CRUST = 12
const share = (value: number, most: number) => `${Math.min(100, (value / most) * 100)}%`
</script>

<template>
  <section class="plate sides" aria-label="Side by side">
    <header>
      <div>
        <h2>Side by side, before any meat is cut</h2>
        <p class="muted">This joint seasoned in every way. Take two of them, and they are tasted against each other.</p>
      </div>
      <v-btn @click="$emit('done')">Not now</v-btn>
    </header>
    <div class="of">
      <Select
        v-for="[kind, name] in KINDS"
        :key="kind"
        :model-value="wanted[kind] ?? ''"
        :label="`${name} to season it with`"
        :options="ofKind(kind)"
        @update:model-value="wanted[kind] = $event || undefined"
      />
    </div>
    <p v-if="says" class="says" role="alert">{{ says }}</p>
    <div v-else-if="sides" class="table">
      <div class="row heads" aria-hidden="true">
        <span>Way</span><span>Salt</span><span>Depth, to {{ show.length(DEEP_CM) }}</span
        ><span>Surface at the fire</span><span>Time</span><span>Risk</span>
      </div>
      <article v-for="one in sides" :key="one.key" class="row" :class="{ on: chosen.includes(one.key) }">
        <label class="pick">
          <input
            type="checkbox"
            :checked="chosen.includes(one.key)"
            :disabled="!!one.problem"
            @change="choose(one.key)"
          />
          <span
            ><b>{{ one.name }}</b
            ><small class="muted">{{ one.blends.join(', ') || one.says }}</small></span
          >
        </label>
        <p v-if="one.problem" class="problem says">{{ one.problem }}</p>
        <template v-else>
          <div class="cell">
            <small class="tag">Salt</small>
            <b
              ><Why :figure="one.salt!" :of="`Salt, ${one.name}`">{{ percent(one.salt!.value) }}</Why></b
            >
            <span class="muted">{{ one.zone }}</span>
            <div class="bar">
              <u :style="{ left: salt(zone[0]), width: `calc(${salt(zone[1])} - ${salt(zone[0])})` }" />
              <i :style="{ width: salt(one.salt!.value) }" />
            </div>
          </div>
          <div class="cell">
            <small class="tag">Depth</small>
            <svg
              :viewBox="`0 0 ${WIDE} ${HIGH}`"
              preserveAspectRatio="none"
              role="img"
              :aria-label="`Salt below the surface, ${little(one.centre_percent)} in the centre`"
            >
              <rect :width="WIDE" :height="HIGH" class="flesh" />
              <path :d="curve(one, one.percent)" :class="one.least.length ? 'needled' : 'salted'" />
              <path v-if="one.least.length" :d="curve(one, one.least)" class="salted" />
            </svg>
            <span
              ><Why :figure="one.deeper!" :of="`Salt deeper than 5 mm, ${one.name}`"
                >{{ one.deeper!.value.toFixed(0) }} %</Why
              >
              of it deeper than 5&nbsp;mm<template v-if="one.least.length"
                >, {{ little(one.least.at(-1)!) }} where least</template
              ></span
            >
          </div>
          <div class="cell">
            <small class="tag">Surface</small>
            <div class="bar thin water"><i :style="{ width: share(one.water!.value, MOST_WATER) }" /></div>
            <div class="bar thin crust"><i :style="{ width: share(one.crust_g_100cm2, MOST_CRUST) }" /></div>
            <span
              >{{ one.surface }}; dries in
              <Why :figure="one.dries!" :of="`Drying, ${one.name}`">{{ one.dries!.value.toFixed(0) }} min</Why></span
            >
          </div>
          <div class="cell">
            <small class="tag">Time</small>
            <b
              ><Why :figure="one.ahead!" :of="`Ahead of the fire, ${one.name}`">{{
                duration(one.ahead!.value)
              }}</Why></b
            >
            <span class="muted line">{{ duration(one.hands_s) }} of it work</span>
            <div class="bar thin time"><i :style="{ width: share(one.ahead!.value, longest) }" /></div>
          </div>
          <div class="cell risk">
            <p v-for="caution in one.worst" :key="caution.sentence" :class="caution.level">
              <v-icon :icon="caution.level === 'stop' ? mdiOctagon : mdiAlert" size="16" aria-hidden="true" />
              <span
                ><b>{{ caution.level === 'stop' ? 'Stop' : 'Caution' }}</b> {{ unbroken(caution.sentence) }}</span
              >
            </p>
            <p v-if="!one.worst.length" class="muted">
              <v-icon :icon="mdiShieldCheckOutline" size="16" aria-hidden="true" /><span>nothing beyond the usual</span>
            </p>
          </div>
        </template>
      </article>
    </div>
    <p v-else class="muted">Seasoning it in every way …</p>
    <p class="muted key">
      <template v-if="sides?.some((one) => one.least.length)"
        ><i class="mean" /> an injection on the whole, dark the tenth it reached least</template
      >
      <i class="water" /> water on the surface <i class="crust" /> rub on it: smoke takes while a surface is wet, a
      crust begins when it is dry. Estimates, ±50 %.
    </p>
    <div class="make">
      <Choice
        v-model="how"
        label="The meat"
        :options="[
          { value: 'split', text: 'this piece, halved' },
          { value: 'two', text: 'two pieces like it' },
        ]"
      />
      <v-btn class="solid" :disabled="chosen.length !== 2" @click="make">{{
        chosen.length === 2 ? 'Make these two pieces' : 'Take two of them'
      }}</v-btn>
      <span class="muted">Other pieces cook beside them and are not tasted.</span>
    </div>
  </section>
</template>

<style scoped>
.sides {
  padding: var(--s-20) var(--s-24);
  margin-bottom: var(--s-16);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s-12);
}
header {
  display: flex;
  justify-content: space-between;
  gap: var(--s-12);
  align-items: start;
}
h2 {
  font-size: var(--t-h3);
}
p {
  margin: 0;
  font-size: var(--t-s);
}
.of {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-12);
}
.of span {
  font-size: var(--t-xs);
  color: var(--muted);
  display: block;
  padding-bottom: var(--s-4);
}
.says {
  color: var(--stop);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) 0.75fr 1fr 1.2fr 0.8fr 1.6fr;
  gap: var(--s-6) var(--s-20);
  align-items: center;
  padding: var(--s-10) 0;
  border-top: 1px solid var(--line);
}
.heads {
  border: 0;
  padding: 0;
  font-size: var(--t-xs);
  color: var(--muted);
}
.row.on {
  background: linear-gradient(90deg, var(--tint), transparent);
  border-radius: 10px;
}
.problem {
  grid-column: 2 / -1;
}
.pick {
  display: flex;
  gap: var(--s-10);
  align-items: center;
  min-height: 44px;
}
.pick input {
  width: 20px;
  height: 20px;
  accent-color: var(--cobalt);
  flex: none;
}
.pick small {
  display: block;
  font-size: var(--t-xs);
  line-height: 1.3;
}
.cell {
  font-size: var(--t-xs);
  line-height: 1.35;
  min-width: 0;
}
.cell b {
  font-size: var(--t-l);
  font-variant-numeric: tabular-nums;
  margin-right: var(--s-6);
}

/* a column has its heading above it on a wide screen, and in every cell on a narrow one */
.tag {
  display: none;
  font-size: var(--t-xs);
  color: var(--muted);
}
.line {
  display: block;
}
.bar {
  position: relative;
  height: 14px;
  background: var(--tint);
  border-radius: 7px;
  margin-top: var(--s-4);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 7px;
  background: var(--cobalt);
}
.bar u {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border: 2px solid var(--ink);
  border-radius: 5px;
}
.bar.thin {
  height: 8px;
}
.water i,
i.water {
  background: var(--water);
}
.crust i,
i.crust {
  background: var(--crust);
}
.time i {
  background: repeating-linear-gradient(115deg, var(--cobalt) 0 4px, var(--line-strong) 4px 8px);
}
svg {
  width: 100%;
  height: 46px;
  display: block;
  border-radius: 8px;
}
.flesh {
  fill: var(--meat);
}
.salted {
  fill: var(--salt);
  opacity: 0.82;
}
.needled {
  fill: var(--salt);
  opacity: 0.3;
}
.risk p {
  display: grid;
  grid-template-columns: 16px 1fr;
  gap: var(--s-6);
  font-size: var(--t-xs);
}
.risk b {
  font-size: var(--t-xs);
  margin: 0;
}
.risk .stop b,
.risk .stop .v-icon {
  color: var(--stop);
}
.risk .caution b,
.risk .caution .v-icon {
  color: var(--caution);
}
.key i {
  display: inline-block;
  width: 18px;
  height: 9px;
  border-radius: 4px;
  margin: 0 var(--s-4) 0 var(--s-10);
}
.key .mean {
  background: linear-gradient(var(--salt) 4d, var(--salt) 4d), #ecc9c1;
}
.key i:first-child {
  margin-left: 0;
}
.key {
  font-size: var(--t-xs);
}
.make {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-16);
  align-items: end;
  font-size: var(--t-s);
}
@media (max-width: 900px) {
  .sides {
    padding: var(--s-16);
  }
  .heads {
    display: none;
  }
  .tag {
    display: block;
  }
  .of {
    grid-template-columns: minmax(0, 1fr);
  }
  .row {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .pick,
  .risk,
  .problem {
    grid-column: 1 / -1;
  }
}
</style>
