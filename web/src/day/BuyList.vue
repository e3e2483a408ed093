<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, byField, call, sentenceOf, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import { refresh } from '../api/kept'
import { usePreferences } from '../app/preferences'
import Field from '../kit/Field.vue'

/** What to buy; what of an ingredient is in the house is typed beside it and counted off. */
defineProps<{ sheet: Schemas['SheetOut'] }>()
const queries = useQueryClient()
const { show } = usePreferences()
const open = ref('')
const typed = ref('')
const refused = ref('')
const held = (one: Schemas['ToBuyOut']) => (one.have ? `${one.have} in the house` : 'in the house?')
function edit(one: Schemas['ToBuyOut']) {
  open.value = one.grind
  typed.value = one.have
  refused.value = ''
}
const save = useChange(
  'stock',
  async (one: Schemas['ToBuyOut']) => {
    if (typed.value.trim() !== one.have) {
      const body = { grind: one.grind, have: typed.value, was: one.have }
      await call(api.PUT('/api/shelf/stock', { body }))
      await refresh(queries, ['day'])
    }
    open.value = ''
  },
  {
    refused: async (failure) => {
      refused.value = byField(failure).have ?? sentenceOf(failure)
      if (!byField(failure).have) await refresh(queries, ['day'])
    },
  },
)
</script>

<template>
  <ul>
    <li v-for="one in sheet.meat" :key="one.cut">
      <b>{{ show.mass(one.grams) }} {{ one.cut }}</b>
      <template v-if="one.other_names.length"> ({{ one.other_names.join(', ') }})</template>: {{ one.look_for
      }}<template v-if="one.instead.length">. Or {{ one.instead.join(', ') }}</template>
    </li>
    <li v-for="one in sheet.buy" :key="one.grind" class="bought" :class="{ there: !one.buy_g }">
      <span v-if="one.buy_g"
        >{{ show.dose(one.buy_g) }} {{ one.name }}<template v-if="one.have">, besides what is there</template></span
      >
      <span v-else>{{ one.name }}: {{ show.dose(one.grams) }} of what is there</span>
      <form v-if="open === one.grind" @submit.prevent="save(one)">
        <Field
          v-model="typed"
          :label="`${one.name} in the house`"
          hidden-label
          placeholder="200 g, or plenty"
          :error="refused"
          autofocus
          @keydown.esc="open = ''"
        />
        <v-btn type="submit">Keep</v-btn>
      </form>
      <button v-else type="button" class="link" :aria-label="`${one.name}: ${held(one)}`" @click="edit(one)">
        {{ held(one) }}
      </button>
    </li>
    <li v-for="side in sheet.sides" :key="side">what {{ side }} takes</li>
  </ul>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.bought {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 var(--s-10);
}
.there {
  color: var(--muted);
}
form .field {
  width: 150px;
}
form {
  display: flex;
  gap: var(--s-8);
  align-items: start;
}
.link {
  font-size: var(--t-xs);
}
@media print {
  .link,
  form {
    display: none;
  }
}
</style>
