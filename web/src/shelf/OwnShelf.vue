<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import { useCatalogue } from '../ui/catalogue'
import { say } from '../ui/notice'
import { percent } from '../ui/units'
import OwnIngredient from './OwnIngredient.vue'

/** The household's own ingredients: what each comes to, where it is used, to change or to take away. */
type Own = Schemas['OwnOut']
const queries = useQueryClient()
const { data: own, error } = useQuery({
  queryKey: ['own ingredients'],
  queryFn: () => call(api.GET('/api/shelf/own-ingredients')),
})
const { data: names } = useQuery({ queryKey: ['own names'], queryFn: () => call(api.GET('/api/shelf/own-names')) })
const { catalogue } = useCatalogue()
const meant = (key: string) => catalogue.value?.grinds.find((grind) => grind.key.startsWith(`${key}/`))?.name ?? key
async function forget(name: string) {
  try {
    await call(api.PUT('/api/shelf/own-names', { body: { name, ingredient: '' } }))
  } catch (failure) {
    say(sentenceOf(failure))
  }
  await refresh(queries, ['own names'])
}
const open = ref(false)
const chosen = ref<Own>()
function edit(one?: Own) {
  chosen.value = one
  open.value = true
}
const again = () => refresh(queries, ['own ingredients'], ['catalogue'])
async function remove(one: Own) {
  const path = { own_id: one.id }
  try {
    const left = await call(
      api.POST('/api/shelf/own-ingredients/{own_id}/remove', { params: { path }, body: { version: one.version } }),
    )
    const where = left.used_in.slice(0, 3).join(', ')
    say(where ? `${one.name} is offered no more; it stays in ${where}.` : `${one.name} is gone.`, async () => {
      await call(api.POST('/api/shelf/own-ingredients/{own_id}/restore', { params: { path } }))
      await again()
    })
  } catch (failure) {
    say(sentenceOf(failure))
  }
  await again()
}
</script>

<template>
  <section class="plate own" aria-label="Your own ingredients">
    <header>
      <h2>Your own ingredients</h2>
      <v-btn @click="edit()">Make one</v-btn>
    </header>
    <p v-if="error" class="muted">{{ sentenceOf(error) }}</p>
    <p v-else-if="own && !own.length" class="muted">
      What the catalogue does not have: from its packet, from amounts, or as another one with changes.
    </p>
    <ul v-if="own?.length">
      <li v-for="one in own" :key="one.id" :class="{ retired: one.retired }">
        <span>
          <b>{{ one.name }}</b><template v-if="one.reads">
            {{ percent(one.reads.salt) }} salt, {{ percent(one.reads.sugars) }} sugar</template
          >
          <small v-if="one.used_in.length" class="muted">in {{ one.used_in.join(', ') }}</small>
        </span>
        <span class="acts">
          <v-btn class="quiet" :aria-label="`Change ${one.name}`" @click="edit(one)">Change</v-btn>
          <v-btn v-if="!one.retired" class="quiet" :aria-label="`Remove ${one.name}`" @click="remove(one)"
            >Remove</v-btn
          >
        </span>
      </li>
    </ul>
    <h3 v-if="names?.length">What you call things</h3>
    <ul v-if="names?.length">
      <li v-for="one in names" :key="one.name">
        <span
          ><b>{{ one.name }}</b> is {{ meant(one.ingredient ?? '') }}</span
        >
        <v-btn class="quiet" :aria-label="`Forget ${one.name}`" @click="forget(one.name)">Forget it</v-btn>
      </li>
    </ul>
    <OwnIngredient v-model="open" :own="chosen" />
  </section>
</template>

<style scoped>
.own {
  padding: 16px 20px;
  margin-top: 16px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
h3 {
  margin: 14px 0 0;
  font-size: 16px;
}
h2,
p {
  margin: 0;
}
ul {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 4px 12px;
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
small {
  display: block;
  font-size: 13px;
}
.retired b {
  text-decoration: line-through;
}
</style>
