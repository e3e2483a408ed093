<script setup lang="ts">
import { ref, watch } from 'vue'
import { useChange } from '../api/change'
import { api, call, type Schemas } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import Field from '../kit/Field.vue'
import NumberedPlate from './NumberedPlate.vue'

/**
 * The one look at which plate is which, for whoever plates: who looks is written down before anything is told. It is
 * kept nowhere, and gone once this is shut, so that the phone can be handed on.
 */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ trial: string }>()
const emit = defineEmits<{ looked: [] }>()
const who = ref('')
const seen = ref<Schemas['LookOut'] | null>(null)
watch(open, () => {
  seen.value = null
  who.value = ''
})
const look = useChange('trial', async () => {
  const params = { path: { trial_id: props.trial } }
  seen.value = await call(api.POST('/api/trials/{trial_id}/looks', { params, body: { who: who.value } }))
  emit('looked')
})
const codesOf = (letter: string) => (seen.value?.plates ?? []).filter((plate) => plate.letter === letter)
const letters = (found: Schemas['LookOut']) => [...new Set(found.plates.map((plate) => plate.letter))]
</script>

<template>
  <v-dialog v-model="open" max-width="620" aria-label="Which plate is which" scrollable>
    <section class="plate look">
      <form v-if="!seen" @submit.prevent="look">
        <h2>Which plate is which?</h2>
        <p>
          Whoever plates has to know. Who looks is written down, and their card is not blind; the others’ stay blind.
        </p>
        <Field v-model="who" label="Who looks?" :maxlength="40" autofocus />
        <div class="ways">
          <v-btn class="solid" type="submit" :disabled="!who.trim()">Show it to me</v-btn>
          <v-btn @click="open = false">Leave it hidden</v-btn>
        </div>
      </form>
      <template v-else>
        <h2>For {{ who }} alone</h2>
        <ul>
          <li v-for="letter in letters(seen)" :key="letter">
            <PieceBadge :letter="letter" />
            <span>
              <b>{{ codesOf(letter)[0]?.name }}</b>
              <span v-if="seen.dealt[letter]?.length" class="muted">by lot: {{ seen.dealt[letter]?.join(', ') }}</span>
            </span>
            <span class="codes">
              <span v-for="plate in codesOf(letter)" :key="plate.code">
                <NumberedPlate :code="plate.code" :size="84" />
                <small v-if="plate.twin" class="muted">the same again</small>
              </span>
            </span>
          </li>
        </ul>
        <details v-if="Object.keys(seen.orders).length">
          <summary>Who is served what, by piece</summary>
          <p v-for="(order, taster) in seen.orders" :key="taster">
            <b>{{ taster }}</b> {{ order.join(', then ') }}
          </p>
        </details>
        <p class="muted">
          Seen so far by {{ seen.seen_by.join(', ') }}. This is kept nowhere: shut it before you hand the phone on.
        </p>
        <v-btn class="solid" @click="open = false">Hide it again</v-btn>
      </template>
    </section>
  </v-dialog>
</template>

<style scoped>
.look {
  padding: var(--s-24);
  overflow-y: auto;
}
ul {
  list-style: none;
  margin: var(--s-12) 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: var(--s-12);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-8) 0;
}
li .muted {
  display: block;
  font-size: var(--t-s);
}
.codes {
  display: flex;
  gap: var(--s-8);
}
.codes > span {
  display: grid;
  justify-items: center;
}
details p {
  margin: var(--s-2) 0;
  font-size: var(--t-s);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
  margin-top: var(--s-16);
}
</style>
