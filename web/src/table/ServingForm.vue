<script setup lang="ts">
import { reactive, ref, watch } from 'vue'
import { useChange } from '../api/change'
import { api, byField, call, Refusal, type Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import Tick from '../kit/Tick.vue'
import type { Design } from './useTable'

/** How it is served: a record that may be written until the reveal, of each piece and of all of them. */
const props = defineProps<{ design: Design }>()
const emit = defineEmits<{ saved: [design: Design]; refused: [failure: unknown] }>()
type Serving = Schemas['ServingDocument']
type Piece = Design['pieces'][number]

const blank: Required<Serving> = { warm: '', sip: '', dim: false, crust_off: false, shared: [], note: '' }
const serving = reactive({ ...blank })
const pieces = ref<{ letter: string; portion: Required<Schemas['PortionDocument']>; plate_min: string }[]>([])
const errors = ref<Record<string, string>>({})
const asRow = ({ letter, portion, plate_min }: Piece) => ({
  letter,
  plate_min,
  portion: { ...portion } as Required<Schemas['PortionDocument']>,
})
watch(() => props.design, (now) => {
  Object.assign(serving, blank, now.serving)
  pieces.value = now.pieces.filter((piece) => piece.tasted).map(asRow)
}, { immediate: true }) // prettier-ignore

const SHARED = ['one board', 'one knife', 'one bag', 'one pan', 'one drip line'] as const
function share(what: (typeof SHARED)[number], on: boolean) {
  serving.shared = on ? [...serving.shared, what] : serving.shared.filter((one) => one !== what)
}
const save = useChange(
  'trial',
  async () => {
    const body = { version: props.design.version, serving: { ...serving }, pieces: pieces.value }
    const params = { path: { trial_id: props.design.trial_id } }
    emit('saved', await call(api.PUT('/api/trials/{trial_id}/serving', { params, body })))
    errors.value = {}
  },
  {
    refused: (failure) => {
      errors.value = byField(failure)
      if (!(failure instanceof Refusal) || failure.problem.theirs) emit('refused', failure)
    },
  },
)
const options = (...values: string[]) => values.map((value) => ({ value, title: value || 'not said' }))
</script>

<template>
  <section class="plate serving" aria-labelledby="served">
    <h2 id="served">How it is served</h2>
    <p class="muted">Alike for all: the same cut of it, as warm, as long off the fire.</p>
    <form @submit.prevent="save" @change="save">
      <div class="two">
        <Field v-model="serving.warm" label="How warm, such as 50 °C" :error="errors['serving.warm']" />
        <Field v-model="serving.sip" label="To sip between" placeholder="water" />
      </div>
      <div class="ticks">
        <Tick v-model="serving.dim">in dim light</Tick>
        <Tick v-model="serving.crust_off">with the crust off</Tick>
      </div>
      <details :open="pieces.some((one) => one.plate_min || Object.values(one.portion).some(Boolean))">
        <summary>Each piece: its portions, and minutes from the fire to the plates</summary>
        <div
          v-for="(one, n) in pieces"
          :key="one.letter"
          class="piece"
          role="group"
          :aria-label="`Piece ${one.letter}`"
        >
          <PieceBadge :letter="one.letter" />
          <Select
            v-model="one.portion.grain"
            label="Grain"
            :options="options('', 'across', 'along')"
            @update:model-value="save"
          />
          <Field
            v-model="one.portion.thickness"
            label="Thick"
            placeholder="8 mm"
            :error="errors[`pieces.${n}.portion.thickness`]"
          />
          <Select
            v-model="one.portion.crust"
            label="Crust"
            :options="options('', 'none', 'an edge', 'all of it')"
            @update:model-value="save"
          />
          <Select
            v-model="one.portion.place"
            label="From"
            :options="options('', 'middle', 'end', 'all over')"
            @update:model-value="save"
          />
          <Field
            v-model="one.plate_min"
            label="To the plates"
            placeholder="10 min"
            :error="errors[`pieces.${n}.plate_min`]"
          />
        </div>
      </details>
      <details :open="serving.shared.length > 0">
        <summary>What they shared, so that one may be on the other</summary>
        <div class="ticks">
          <Tick
            v-for="what in SHARED"
            :key="what"
            :model-value="serving.shared.includes(what)"
            @update:model-value="share(what, $event as boolean)"
          >
            {{ what }}
          </Tick>
        </div>
      </details>
    </form>
  </section>
</template>

<style scoped>
.serving {
  padding: var(--s-20) var(--s-24);
}
.serving > p {
  margin: var(--s-2) 0 var(--s-10);
  font-size: var(--t-s);
}
form {
  display: grid;
  gap: var(--s-8);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s-12);
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s-20);
}
summary {
  cursor: pointer;
  min-height: var(--tap);
  padding: var(--s-6) 0;
  font-size: var(--t-m);
}
.piece {
  display: grid;
  grid-template-columns: auto repeat(auto-fill, minmax(104px, 1fr));
  gap: var(--s-6) var(--s-8);
  align-items: end;
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
</style>
