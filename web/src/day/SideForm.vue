<script setup lang="ts">
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import Tick from '../kit/Tick.vue'
import type { SideTyped } from './sides'

/** One side as typed. */
const side = defineModel<SideTyped>({ required: true })
defineProps<{ cookers: { value: string; title: string }[]; errors: Record<string, string> }>()
</script>

<template>
  <div class="form">
    <div class="fields">
      <Field v-model="side.name" label="What it is" placeholder="Flatbread" :error="errors.name" autofocus />
      <Field v-model="side.hands" label="Work before that" placeholder="25 min" :error="errors.hands" />
      <Field v-model="side.minutes" label="Cooks for" placeholder="20 min" :error="errors.minutes" />
      <Select v-model="side.cooker" label="On what" :options="cookers" :error="errors.cooker" />
      <Field v-if="side.cooker" v-model="side.aimed" label="How hot" placeholder="230 °C" :error="errors.aimed" />
      <Field v-model="side.waits" label="Can wait, once done" placeholder="10 min" :error="errors.waits" />
    </div>
    <Tick v-model="side.tended">Somebody stands beside it all the while</Tick>
    <div class="acts"><slot /></div>
  </div>
</template>

<style scoped>
.form {
  margin-top: var(--s-8);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: var(--s-10);
  align-items: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-8);
  align-items: center;
}
</style>
