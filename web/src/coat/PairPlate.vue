<script setup lang="ts">
import { computed, ref } from 'vue'
import { useCatalogue } from '../ui/catalogue'
import Choice from '../ui/Choice.vue'
import type { Coat } from './useCoat'

/** One piece becomes two arms that are compared: which two, and whether it is cut in half or there are two alike. */
const props = defineProps<{ coat: Coat }>()
const emit = defineEmits<{ done: [] }>()
const { catalogue } = useCatalogue()
const kinds = computed(() =>
  (catalogue.value?.arm_kinds ?? []).map((value) => ({
    value,
    text: catalogue.value?.schools.find((school) => school.key === value)?.name.toLowerCase() ?? value,
  })),
)
const first = ref('rubbed')
const second = ref('marinated')
const how = ref<'split' | 'two'>('split')
async function make() {
  if (await props.coat.makePair([first.value, second.value], how.value === 'split')) emit('done')
}
</script>

<template>
  <section class="plate pair" aria-label="Two arms of this piece">
    <Choice v-model="first" label="One arm" :options="kinds" />
    <Choice v-model="second" label="The other" :options="kinds" />
    <Choice
      v-model="how"
      label="The meat"
      :options="[
        { value: 'split', text: 'this piece, halved' },
        { value: 'two', text: 'two pieces like it' },
      ]"
    />
    <p class="ways">
      <v-btn class="solid" :disabled="first === second" @click="make">Make the two arms</v-btn>
      <v-btn @click="$emit('done')">Not now</v-btn>
      <span class="muted">Other pieces cook beside them and are not compared.</span>
    </p>
  </section>
</template>

<style scoped>
.pair {
  padding: 16px 22px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 12px 20px;
  margin-bottom: 16px;
}
.ways {
  grid-column: 1 / -1;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  font-size: 14px;
}
</style>
