<script setup lang="ts">
import { useQuestion } from '../api/question'
import { computed, ref, watch } from 'vue'
import { api, call } from '../api/client'
import { useChange } from '../api/change'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import { usePreferences } from '../app/preferences'
import Select from '../kit/Select.vue'
import { coatHere } from './useCoat'
import { DEEP_CM, topOf } from './sides'
import SideWay from './SideWay.vue'
import { sure } from '../kit/sure'

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
  if (first && second && (await coat.makePair([first, second], how.value === 'split', ids.value))) emit('done')
})
/** The zone most people like: from where the light one ends to where the usual one does. */
const zone = computed((): [number, number] => {
  const zones = catalogue.value?.zones ?? []
  const at = zones.findIndex((one) => one.name === 'usual')
  return at > 0 ? [sure(zones[at - 1]).below_percent ?? 0, sure(zones[at]).below_percent ?? Infinity] : [0, 0]
})
const longest = computed(() => Math.max(1, ...(sides.value ?? []).map((one) => one.ahead?.value ?? 0)))
const top = computed(() => topOf(sides.value ?? []))
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
    <details class="with">
      <summary>With other blends than those on the board</summary>
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
    </details>
    <p v-if="says" class="says" role="alert">{{ says }}</p>
    <div v-else-if="sides" class="table" tabindex="0" role="group" aria-label="Ways, one beside the other">
      <div class="row heads" aria-hidden="true">
        <span>Way</span><span>Salt</span><span>Depth, to {{ show.length(DEEP_CM) }}</span
        ><span>Surface at the fire</span><span>Time</span><span>Risk</span>
      </div>
      <SideWay
        v-for="one in sides"
        :key="one.key"
        :one="one"
        :zone="zone"
        :longest="longest"
        :top="top"
        :model-value="chosen.includes(one.key)"
        @update:model-value="choose(one.key)"
      />
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
  display: grid;
  gap: var(--s-10);
}
header {
  display: flex;
  justify-content: space-between;
  gap: var(--s-12);
  align-items: start;
}
p {
  margin: 0;
  font-size: var(--t-s);
}
summary {
  cursor: pointer;
  color: var(--link);
  min-height: var(--tap);
  display: flex;
  align-items: center;
}
.of {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s-12);
  padding-bottom: var(--s-8);
}
.says {
  color: var(--stop);
}
.heads {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) 0.75fr 1fr 1.2fr 0.8fr 1.6fr;
  gap: var(--s-20);
  font-size: var(--t-xs);
  color: var(--muted);
}
.key {
  font-size: var(--t-xs);
}
.key i {
  display: inline-block;
  width: 18px;
  height: 9px;
  border-radius: 4px;
  margin: 0 var(--s-4) 0 var(--s-10);
}
.key i:first-child {
  margin-left: 0;
}
.key .mean {
  background: linear-gradient(#14235c4d, #14235c4d), #ecc9c1;
}
i.water {
  background: var(--water);
}
i.crust {
  background: var(--crust);
}
.make {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-16);
  align-items: end;
}
@media (max-width: 900px) {
  .sides {
    padding: var(--s-16);
  }
  .heads {
    display: none;
  }
  .of {
    grid-template-columns: minmax(0, 1fr);
  }
  /* one way a page, the next a swipe away */
  .table {
    display: flex;
    gap: var(--s-16);
    overflow-x: auto;
    scroll-snap-type: x mandatory;
  }
}
</style>
