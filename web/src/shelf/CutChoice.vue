<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { cutWords, useCatalogue } from '../api/catalogue'
import RankedChoice from '../kit/RankedChoice.vue'

/** Which cut it is, of the catalogue or of the household's own; one that is in neither is made on the spot. */
const cut = defineModel<string>({ required: true })
defineProps<{ label: string }>()
const { catalogue } = useCatalogue()
const items = computed(() =>
  (catalogue.value?.cuts ?? [])
    .filter((one) => !one.retired || one.key === cut.value)
    .map((one) => ({ value: one.key, title: one.name, words: cutWords(one), also: one.other_names.join(', ') })),
)
const OwnCut = defineAsyncComponent(() => import('./OwnCut.vue'))
const making = ref(false)
const called = ref('')
function make(typed: string) {
  called.value = typed
  making.value = true
}
</script>

<template>
  <RankedChoice
    v-model="cut"
    :items="items"
    :label="label"
    nothing="No cut of that name; try the animal."
    make="None of these: make it a cut of your own"
    @make="make"
  />
  <OwnCut v-if="making" v-model="making" :name="called" @made="cut = $event" />
</template>
