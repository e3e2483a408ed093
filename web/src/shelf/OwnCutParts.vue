<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../api/catalogue'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'

/** The faces of an own cut that keep seasoning off the meat, and what comes off it, each with its share. */
const faces = defineModel<Schemas['FaceDocument'][]>('faces', { required: true })
const trims = defineModel<Schemas['TrimDocument'][]>('trims', { required: true })
defineProps<{ errors: Record<string, string> }>()
const { catalogue } = useCatalogue()
const left = computed(() =>
  (catalogue.value?.faces ?? []).filter((name) => !faces.value.some((face) => face.name === name)),
)
const becomes = computed(() => catalogue.value?.trim_becomes ?? [])
</script>

<template>
  <fieldset>
    <legend>Faces that keep seasoning off the meat, % of the surface</legend>
    <div v-for="(face, at) in faces" :key="face.name" class="row">
      <span class="what">{{ face.name }}</span>
      <Field
        v-model="face.share!"
        :label="`Share of the ${face.name}`"
        hidden-label
        :error="errors[`faces.${at}.share`]"
      />
      <button type="button" class="link" :aria-label="`None of the ${face.name}`" @click="faces.splice(at, 1)">
        None
      </button>
    </div>
    <p class="add">
      <button v-for="name in left" :key="name" type="button" class="link" @click="faces.push({ name, share: '' })">
        + {{ name }}
      </button>
    </p>
    <p v-if="errors.faces" class="says" role="alert">{{ errors.faces }}</p>
  </fieldset>
  <fieldset>
    <legend>What comes off, % as bought</legend>
    <div v-for="(trim, at) in trims" :key="at" class="row trim">
      <Field v-model="trim.what!" label="What comes off" hidden-label placeholder="flap" />
      <Field
        v-model="trim.share!"
        label="Its share"
        hidden-label
        placeholder="5"
        :error="errors[`trims.${at}.share`]"
      />
      <Select
        v-model="trim.becomes"
        label="What becomes of it"
        hidden-label
        :options="becomes.map((one) => ({ value: one.key, title: one.says }))"
      />
      <button type="button" class="link" :aria-label="`Remove ${trim.what || 'it'}`" @click="trims.splice(at, 1)">
        Remove
      </button>
    </div>
    <p v-if="trims.length < 6" class="add">
      <button type="button" class="link" @click="trims.push({ what: '', share: '', becomes: 'bin' })">
        + something that comes off
      </button>
    </p>
    <p v-if="errors.trims" class="says" role="alert">{{ errors.trims }}</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-size: var(--t-xs);
  color: var(--muted);
  padding: 0;
}
.row {
  display: grid;
  grid-template-columns: 1fr 90px auto;
  gap: var(--s-10);
  align-items: center;
  padding: var(--s-4) 0;
}
.trim {
  grid-template-columns: 1fr 70px minmax(0, 1.2fr) auto;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-4) var(--s-14);
  margin: 0;
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: 0;
}
@media (max-width: 720px) {
  .trim {
    grid-template-columns: 1fr 70px;
  }
}
</style>
