<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue, type Cut } from '../ui/catalogue'
import Field from '../ui/Field.vue'
import { usePreferences } from '../ui/preferences'
import Why from '../ui/Why.vue'
import PieceDrawing from './PieceDrawing.vue'

/** The piece: which cut, how heavy, how many, what is left bare, and measures where somebody took them. */
const piece = defineModel<Schemas['PieceDocument']>({ required: true })
const props = defineProps<{
  reading: Schemas['PieceReadingOut'] | null
  errors: Record<string, string>
  longest: number
  label: string
}>()
const { catalogue, cuts } = useCatalogue()
const { show } = usePreferences()

const items = computed(() =>
  (catalogue.value?.cuts ?? []).map((cut) => ({ value: cut.key, title: cut.name, raw: cut })),
)
function matches(_: string, typed: string, item?: { raw: { raw: Cut } }): boolean {
  const cut = item?.raw.raw
  return !!cut && [cut.name, cut.animal, ...cut.other_names].join(' ').toLowerCase().includes(typed.toLowerCase())
}
const cut = computed(() => cuts.value.get(piece.value.cut))
const count = computed({
  get: () => String(piece.value.count),
  set: (text) => (piece.value.count = (/^\d+$/.test(text.trim()) ? Number(text) : text) as number),
})
const measured = ref(!!(piece.value.length || piece.value.width || piece.value.thickness))
function clearMeasures() {
  measured.value = false
  Object.assign(piece.value, { length: '', width: '', thickness: '' })
}
const says = (name: string) => props.errors[`piece.${name}`] ?? props.errors[`piece.measures.${name}_cm`]
</script>

<template>
  <div class="piece">
    <div class="fields">
      <div class="cut" :class="{ wrong: says('cut') }">
        <span class="label">Cut</span>
        <v-autocomplete
          v-model="piece.cut"
          :items="items"
          :custom-filter="matches"
          :aria-label="`Cut of arm ${label}`"
          no-data-text="No cut of that name; try the animal."
        >
          <template #item="{ item, props: row }">
            <v-list-item v-bind="row" :title="undefined">
              {{ item.raw.name }} <small class="muted">{{ item.raw.other_names.join(', ') }}</small>
            </v-list-item>
          </template>
        </v-autocomplete>
        <p v-if="says('cut')" class="says" role="alert">{{ says('cut') }}</p>
      </div>
      <Field v-model="piece.mass" label="Raw weight" placeholder="2.3 kg" :error="says('mass')" class="mass" />
      <Field v-model="count" label="Pieces" :error="says('count')" class="count" />
    </div>
    <div class="seen">
      <PieceDrawing
        v-if="reading"
        :solid="reading.solid"
        :bare-face="piece.coat_bare_face ? '' : reading.bare_face"
        :longest="longest"
      />
      <div v-if="reading" class="area">
        <p class="big">
          <Why :figure="reading.coatable" of="Surface to coat">{{ show.area(reading.coatable.value) }}</Why>
        </p>
        <p class="muted">to coat, {{ reading.coatable.error.split(':')[0] }}</p>
        <p class="muted">
          <Why :figure="reading.edible" of="Edible raw weight">{{ show.mass(reading.edible.value) }}</Why> edible
        </p>
        <label v-if="cut?.bare_face" class="bare">
          <input v-model="piece.coat_bare_face" type="checkbox" /> coat the {{ cut.bare_face }} too
        </label>
        <button v-if="!measured" type="button" class="link" @click="measured = true">Measure it for ±8 %</button>
      </div>
    </div>
    <p v-if="reading?.question" class="question" role="status"><b>Is this right?</b> {{ reading.question }}</p>
    <div v-if="measured" class="measures">
      <Field v-model="piece.length" label="Length" placeholder="24 cm" :error="says('length')" />
      <Field v-model="piece.width" label="Width" placeholder="17 cm" :error="says('width')" />
      <Field v-model="piece.thickness" label="Thickness" placeholder="10 cm" :error="says('thickness')" />
      <button type="button" class="link" @click="clearMeasures">Go by weight</button>
    </div>
  </div>
</template>

<style scoped>
.piece {
  display: grid;
  gap: 12px;
}
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px 72px;
  gap: 12px;
  align-items: start;
}
.label {
  font-size: 13px;
  color: var(--muted);
  display: block;
  padding-bottom: 4px;
}
.cut :deep(.v-field) {
  padding: 0 10px;
  min-height: var(--tap);
}
.cut :deep(.v-field__input) {
  min-height: var(--tap);
  padding-block: 6px;
}
.says {
  color: var(--stop);
  font-size: 13px;
  margin: 4px 0 0;
}
.seen {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 172px;
  gap: 16px;
  align-items: center;
  min-height: 172px;
}
.area p {
  margin: 0;
  font-size: 14px;
}
.area .big {
  font-size: 28px;
}
.bare {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 14px;
  margin-top: 8px;
  cursor: pointer;
}
.bare input {
  width: 18px;
  height: 18px;
  accent-color: var(--cobalt);
}
.link {
  color: var(--link) !important;
  font-size: 14px !important;
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 6px 0;
}
.question {
  margin: 0;
  font-size: 14px;
}
.question b {
  color: var(--caution);
}
.measures {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
  gap: 12px;
  align-items: start;
}
.measures .link {
  margin-top: 22px;
}
@media (max-width: 720px) {
  .fields {
    grid-template-columns: 1fr 72px;
  }
  .cut {
    grid-column: 1 / -1;
  }
  .seen {
    grid-template-columns: 1fr;
  }
  .measures {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .bare,
  .link {
    min-height: 44px;
  }
}
</style>
