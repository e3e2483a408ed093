<script setup lang="ts">
import NumberedPlate from './NumberedPlate.vue'

/** Choose one of the plates, or put all of them in order by tapping one after the other. */
const props = defineProps<{
  codes: string[]
  asks: string
  order?: string[]
  places?: Record<string, number>
  chosen?: string
  none?: string
}>()
const emit = defineEmits<{ pick: [code: string]; alike: [code: string] }>()
const place = (code: string) => props.places?.[code] ?? 0
/** Not the first of an order: it can be as good as the one before. */
const follows = (code: string) => (props.order?.indexOf(code) ?? 0) > 0
const alike = (code: string) =>
  place(code) === (props.order?.indexOf(code) ?? 0) + 1 ? 'as good as the one before' : 'not quite as good'
const isOn = (code: string) => (props.order ? place(code) > 0 : props.chosen === code)
const NTH = ['', 'best', '2nd', '3rd', '4th', '5th', '6th']
const size = () => (props.codes.length > 4 ? 96 : props.codes.length > 2 ? 118 : 150)
</script>

<template>
  <fieldset class="pick">
    <legend>{{ asks }}</legend>
    <div class="plates">
      <div v-for="code in codes" :key="code">
        <button
          type="button"
          class="one"
          :class="{ on: isOn(code) }"
          :aria-pressed="isOn(code)"
          :aria-label="order && place(code) ? `${code}, ${NTH[place(code)]}` : code"
          @click="emit('pick', code)"
        >
          <NumberedPlate :code="code" :size="size()" />
          <b v-if="order" aria-hidden="true">{{ place(code) ? NTH[place(code)] : '·' }}</b>
        </button>
        <button
          v-if="order && follows(code)"
          type="button"
          class="link"
          :aria-label="`${code}: ${alike(code)}`"
          @click="emit('alike', code)"
        >
          {{ alike(code) }}
        </button>
      </div>
    </div>
    <button
      v-if="none"
      type="button"
      class="none"
      :class="{ on: chosen === 'none' }"
      :aria-pressed="chosen === 'none'"
      @click="emit('pick', 'none')"
    >
      {{ none }}
    </button>
  </fieldset>
</template>

<style scoped>
.pick {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  justify-items: center;
  min-width: 0;
}
legend {
  font-family: var(--display);
  font-weight: 700;
  font-size: var(--t-h1);
  line-height: 1.15;
  padding: 0 0 var(--s-12);
}
.plates {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: var(--s-12);
}
.plates > div {
  display: grid;
  align-content: start;
  justify-items: center;
  max-width: 150px;
}
.plates .link {
  font-size: var(--t-s) !important;
  line-height: 1.2;
}
.plates .one {
  display: grid;
  justify-items: center;
  gap: var(--s-4);
  border-radius: 20px !important;
  padding: var(--s-8) !important;
  min-width: 96px;
}
.plates .one.on {
  background: var(--tint) !important;
  box-shadow: inset 0 0 0 3px var(--cobalt);
}
.none {
  margin-top: var(--s-12);
  background: var(--tint) !important;
  border-radius: 12px !important;
  min-height: 52px;
  padding: 0 var(--s-24) !important;
  font-size: var(--t-xl) !important;
}
.none.on {
  background: var(--cobalt) !important;
  color: var(--on-cobalt) !important;
  font-weight: 700 !important;
}
</style>
