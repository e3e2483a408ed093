<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import { percent } from '../kit/units'
import OldMark from '../kit/OldMark.vue'
import Why from '../kit/Why.vue'
import InjectionMap from './InjectionMap.vue'
import NeedleFields from './NeedleFields.vue'
import TwoSides from './TwoSides.vue'
import { isOld } from './reading'
import type { Bone, Place } from './siteKeys'
import { coatHere, layerHere } from './useCoat'
import { sure } from '../kit/sure'

/** An injection in millilitres and sites: how salty its liquid is, where the needle goes in, and what was weighed after. */
const coat = coatHere()
const props = defineProps<{
  at: number
  reading: Schemas['LayerShown']
  piece: Schemas['PieceShown']
  name: string
  errors: Record<string, string>
}>()
const { show } = usePreferences()
const queries = useQueryClient()
const layer = layerHere(() => props.at)
const plan = computed(() => layer.value.injection)
const found = computed(() => sure(props.reading.injection))
/** The API takes and gives places of two numbers, and bones of five. */
const sites = computed(() => (plan.value.sites.length ? plan.value.sites : found.value.sites) as Place[])
const own = computed(() => sure(coat.piece.value).bones as Bone[])
const bones = computed(() =>
  own.value.length ? own.value : props.piece.bones.map(({ x0, y0, x1, y1, wide }): Bone => [x0, y0, x1, y1, wide]),
)
const chosen = ref(0)
const wants = computed({ get: () => plan.value.wants, set: (typed: string) => (plan.value.wants = typed) })
const dose = computed({
  get: () => layer.value.dose,
  set: (typed: string) => Object.assign(layer.value, { dose: typed, mixed_g: null }),
})
const says = (key: string) => props.errors[`injection.${key}`]
function setSites(moved: Place[]) {
  coat.history.mark()
  plan.value.sites = moved
}
function setBones(moved: Bone[]) {
  coat.history.mark()
  sure(coat.piece.value).bones = moved
}
function layAgain() {
  coat.history.mark()
  plan.value.sites = []
}
function fillGap() {
  if (found.value.gap) setSites([...sites.value, [found.value.gap.x, found.value.gap.y]])
  chosen.value = sites.value.length - 1
}
function takeOut() {
  setSites(sites.value.filter((_, n) => n !== chosen.value))
}
const again = computed(() => layer.value.kind === 'second injection')
const makeStrength = useChange('blends', async () => {
  await coat.autosave.flush()
  const body = { letter: sure(coat.piece.value).letter, layer: props.at }
  const made = await call(api.POST('/api/cooks/{cook_id}/strength', { params: { path: coat.path() }, body }))
  await refresh(queries, ['blends'])
  coat.history.mark()
  layer.value.blend_id = made.blend_id
  layer.value.revision = null
  say(`“${made.name}” is a blend now, and on this piece.`)
})
</script>

<template>
  <TwoSides
    :title="`${again ? 'Injecting again' : 'Injecting'}: ${name}`"
    class="injecting"
    :aria-label="again ? 'Injecting again' : 'Injecting'"
  >
    <template #about>
      {{ found.weighed ? 'weighed:' : 'planned:' }} pump
      <Why :figure="found.pump" of="Pump">{{ percent(found.pump.value) }}</Why>, of the liquid
      <Why :figure="found.stays" of="What stays">{{ found.stays.value.toFixed(0) }} %</Why> stays
      <OldMark v-if="isOld(coat.errorsOf(coat.current.value), at)" />
    </template>
    <template #picture>
      <InjectionMap
        v-model:chosen="chosen"
        :solid="piece.solid"
        :bones="bones"
        :sites="sites"
        :misplaced="found.misplaced"
        :gap="found.gap"
        :salt="found.spread?.rows ?? []"
        @sites="setSites"
        @bones="setBones"
      />
      <p v-if="says('sites')" class="wrong" role="alert">{{ says('sites') }}</p>
      <p class="ways">
        <v-btn v-if="found.misplaced.length" class="solid" @click="coat.layOut(at)">Move them off</v-btn>
        <v-btn v-if="plan.sites.length" @click="layAgain">Lay them out again</v-btn>
        <v-btn v-if="found.gap" @click="fillGap">A site in the widest gap</v-btn>
        <v-btn v-if="sites.length > 1" @click="takeOut"
          >Take site {{ Math.min(chosen, sites.length - 1) + 1 }} out</v-btn
        >
        <v-btn v-if="own.length" @click="setBones([])">Bone as usual</v-btn>
      </p>
      <p class="muted small">
        Drag a site{{ bones.length ? ' or the end of a bone' : '' }}; arrow keys move it 2 mm, page keys go to the next,
        Delete takes it out. {{ bones.length && !own.length ? 'The bone lies where such a cut usually has it.' : '' }}
      </p>
      <p v-if="found.spread">
        Shaded: its salt by the fire.
        <Why :figure="found.spread.seasoned" of="Meat the needle seasons"
          >{{ found.spread.seasoned.value.toFixed(0) }} %</Why
        >
        of the meat has at least half of the mean<template v-if="!found.own_sites"
          >; midway between sites there is
          <Why :figure="found.evenness" of="Salt midway between sites"
            >{{ found.evenness.value.toFixed(0) }} %</Why
          ></template
        >.
      </p>
      <p v-for="sentence in found.asks" :key="sentence" class="wrong">{{ sentence }}</p>
      <p v-for="sentence in found.says" :key="sentence">{{ sentence }}</p>
    </template>
    <template #numbers>
      <p class="answer">
        <b class="big"
          ><Why :figure="found.site_ml" of="Liquid a site">{{ show.volume(found.site_ml.value) }}</Why></b
        >
        into each of {{ found.sites_in_all }} sites
        <span class="parts">
          <span>{{
            found.strokes > 1
              ? `${found.strokes} strokes of ${show.volume(found.stroke_ml)} a site`
              : 'one stroke a site'
          }}</span>
          <span>{{ found.fills }} {{ found.fills === 1 ? 'fill' : 'fills' }} of the syringe</span>
          <span v-if="found.sites_a_fill && found.fills > 1">{{ found.sites_a_fill }} sites a fill</span>
          <span>{{ show.volume(found.liquid_ml) }} in all</span>
        </span>
      </p>
      <div class="fields">
        <Field v-model="dose" label="Pump, % of the raw weight, or 200 ml" placeholder="10" :error="errors.dose" />
        <Field
          v-model="wants"
          label="Salt it is to bring, %"
          placeholder="as the blend has it"
          :error="says('wants')"
        />
      </div>
      <div v-if="found.strength" class="strength">
        <p>
          The liquid must be
          <Why :figure="found.strength.needed" of="Salt of the liquid">{{ percent(found.strength.needed.value) }}</Why>
          salt; this one is {{ percent(found.strength.now_percent) }}. {{ found.strength.says }}
        </p>
        <v-btn v-if="found.strength.add_g > 0" class="solid" @click="makeStrength">Make a blend of it</v-btn>
      </div>
      <p v-else class="muted">The liquid is {{ percent(found.liquid_percent) }} salt.</p>
      <NeedleFields :at="at" :found="found" :errors="errors" />
    </template>
  </TwoSides>
</template>

<style scoped>
.small {
  font-size: var(--t-xs);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
}
.wrong {
  color: var(--stop);
}
.answer {
  padding: var(--s-14) var(--s-20);
  color: var(--on-deep-soft);
  font-size: var(--t-l);
}
.answer .big {
  font-size: var(--t-big);
  color: #fff;
  margin-right: var(--s-4);
}
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s-16);
}
.strength {
  display: grid;
  gap: var(--s-8);
  justify-items: start;
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-10) var(--s-14);
}
.link {
  justify-self: start;
  font-size: var(--t-s);
}
</style>
