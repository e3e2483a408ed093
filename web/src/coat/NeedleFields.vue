<script setup lang="ts">
import { computed, ref } from 'vue'
import { grindName, useCatalogue } from '../api/catalogue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { coatHere, layerHere, pieceHere } from './useCoat'

/** The needle: its grid, its bore, its syringe, what would clog it, and what was weighed after. */
const props = defineProps<{
  at: number
  found: NonNullable<Schemas['LayerShown']['injection']>
  errors: Record<string, string>
}>()
const coat = coatHere()
const piece = pieceHere()
const { grinds } = useCatalogue()
const { show } = usePreferences()
const layer = layerHere(() => props.at)
const plan = computed(() => layer.value.injection)
type Text = 'spacing' | 'bore' | 'syringe' | 'stroke' | 'before' | 'after' | 'used'
const text = (key: Text) =>
  computed({
    get: () => plan.value[key],
    set: (typed: string) => {
      plan.value[key] = typed
      // another spacing asks for a grid of its own; sites set by hand come back with one undo
      if (key === 'spacing') plan.value.sites = []
    },
  })
const spacing = text('spacing')
const bore = text('bore')
const syringe = text('syringe')
const stroke = text('stroke')
const before = text('before')
const after = text('after')
const used = text('used')
const grid = computed({
  get: () => plan.value.grid,
  set: (value: 'hexagonal' | 'square') => {
    plan.value.grid = value
    plan.value.sites = []
  },
})
/** How many sites are asked for: laid out at Enter, or when the field is left. */
const sites = ref('')
const sitesSay = ref('')
async function ask() {
  const count = sites.value.trim()
  sitesSay.value = ''
  if (!count) return
  if (!/^\d{1,3}$/.test(count)) sitesSay.value = 'A whole number, such as 11.'
  else if (await coat.layOut(props.at, Number(count))) sites.value = ''
}
const says = (key: string) => props.errors[`injection.${key}`]
const mm = (value: number) => `${Number(value.toFixed(1))} mm`
const weighing = ref(!!plan.value.after)
const again = computed(() => layer.value.kind === 'second injection')
</script>

<template>
  <div class="fields">
    <Choice
      v-model="grid"
      label="Grid"
      :options="[
        { value: 'hexagonal', text: 'triangles' },
        { value: 'square', text: 'squares' },
      ]"
    />
    <Field
      v-model="sites"
      label="Sites a piece"
      :placeholder="String(found.sites.length)"
      :error="sitesSay"
      @keydown.enter="ask"
      @focusout="ask"
    />
    <Field
      v-model="spacing"
      label="Sites apart"
      :placeholder="mm(found.plan.spacing_cm * 10)"
      :error="says('spacing')"
    />
  </div>
  <div class="fields">
    <Field v-model="bore" label="Needle's bore" :placeholder="mm(found.plan.bore_mm)" :error="says('bore')" />
    <Field v-model="syringe" label="Syringe" :placeholder="`${found.plan.syringe_ml} ml`" :error="says('syringe')" />
    <Field
      v-model="stroke"
      label="A stroke, at most"
      :placeholder="`${found.plan.stroke_ml} ml`"
      :error="says('stroke')"
    />
  </div>
  <p v-if="found.clog.coarse.length" class="wrong">
    Clogs:
    {{
      found.clog.coarse
        .map((one) => `${grinds.has(one.grind) ? grindName(grinds.get(one.grind)!) : one.grind} ${mm(one.grain_mm)}`)
        .join(', ')
    }}; at most {{ mm(found.clog.most_mm) }} passes. Grind and strain it, or take a wider needle.
  </p>
  <p v-else class="muted">Nothing in it is over {{ mm(found.clog.most_mm) }}, a third of the bore: it passes.</p>
  <button type="button" class="link" :aria-expanded="weighing" @click="weighing = !weighing">
    It is in: weigh it after
  </button>
  <div v-if="weighing" class="fields">
    <Field
      v-model="before"
      label="Weight before"
      :placeholder="again ? 'as it lies on the fire' : piece.mass"
      :error="says('before')"
    />
    <Field
      v-model="after"
      label="Weight after"
      :placeholder="again && !before ? '' : `about ${show.mass(found.expected_g)}`"
      :error="says('after')"
    />
    <Field v-model="used" label="Liquid used" :placeholder="show.volume(found.liquid_ml)" :error="says('used')" />
  </div>
</template>

<style scoped>
.wrong {
  color: var(--stop);
}
.link {
  justify-self: start;
  font-size: var(--t-s);
}
</style>
