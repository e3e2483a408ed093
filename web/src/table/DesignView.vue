<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useChange } from '../api/change'
import { api, call, sentenceOf } from '../api/client'
import PieceBadge from '../draw/PieceBadge.vue'
import ConflictBar from '../edit/ConflictBar.vue'
import { differences } from '../edit/differences'
import SaveMark from '../edit/SaveMark.vue'
import FairTest from '../home/FairTest.vue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import Tick from '../kit/Tick.vue'
import BandPlate from './BandPlate.vue'
import CrossedFields from './CrossedFields.vue'
import DesignCard from './DesignCard.vue'
import ServingForm from './ServingForm.vue'
import { typed, useDesigning } from './useDesigning'
import { useDesign, useFair } from './useTable'

/** The design of a trial, before its first card: what is asked of whom, and whether it is a fair test. */
const props = defineProps<{ id: string }>()
const { design, show, refused } = useDesign(toRef(props, 'id'))
const fair = useFair(toRef(props, 'id'))
const { doc, errors, autosave, conflict } = useDesigning(
  () => design.value,
  (out) => void show(out),
)
const kind = computed(() => design.value?.kinds.find((one) => one.key === doc.value?.kind))
const frozen = computed(() => !!design.value?.tasted || !!design.value?.revealed)
function toggle(letter: string, on: boolean) {
  if (!doc.value) return
  const chosen = on ? [...doc.value.letters, letter] : doc.value.letters.filter((one) => one !== letter)
  doc.value.letters = [...new Set(chosen)].sort()
  // a kind that cannot take so many gives way to one that can
  if (doc.value.letters.length > (kind.value?.most ?? 6)) doc.value.kind = 'ranking'
  if (doc.value.letters.length !== 4) Object.assign(doc.value, { sides: [], crossed: [] })
}
const even = useChange(
  'trial',
  async (what: string) => {
    const path = { cook_id: design.value?.cook_id ?? '' }
    const { version } = await call(api.GET('/api/cooks/{cook_id}', { params: { path } }))
    const body = { version, what: what as 'salt' }
    await call(api.POST('/api/cooks/{cook_id}/even', { params: { path }, body }))
    await show(await call(api.GET('/api/trials/{trial_id}/design', { params: { path: { trial_id: props.id } } })))
  },
  { refused },
)
const cross = useChange(
  'trial',
  async () => {
    const params = { path: { trial_id: props.id } }
    const body = { version: design.value?.version ?? 1 }
    await show(await call(api.POST('/api/trials/{trial_id}/two-by-two', { params, body })))
    say('Two more pieces are on the board, as heavy as theirs: four samples, read in pairs.')
  },
  { refused },
)
const copying = ref(false)
const copy = useChange('trial', async () => {
  copying.value = true
  const path = { cook_id: design.value?.cook_id ?? '' }
  try {
    const made = await call(api.POST('/api/cooks/{cook_id}/copy', { params: { path } }))
    say(`“${made.name}” is in hand: change its design there.`)
  } catch (failure) {
    say(sentenceOf(failure))
  }
  copying.value = false
})
</script>

<template>
  <main v-if="design && doc">
    <header class="station-head">
      <div>
        <h1>The trial</h1>
        <p class="muted">what is asked, of which plates, and whether it is fair</p>
      </div>
      <span class="tools">
        <SaveMark :state="autosave.state.value" :refusal="autosave.refusal.value" />
        <v-btn class="solid" :to="`/table/${id}`">To the table</v-btn>
      </span>
    </header>
    <ConflictBar
      v-if="conflict"
      what="trial"
      :differences="differences(doc, typed(conflict))"
      @mine="autosave.keepMine()"
      @theirs="autosave.takeTheirs()"
    />
    <p v-if="frozen" class="plate frozen" role="status">
      {{ design.revealed ? 'It is told which plate is which' : 'Cards are in' }}, so this design stays as it was tasted.
      <button type="button" class="link" :disabled="copying" @click="copy">Copy the cook for another</button>
    </p>
    <div class="spread">
      <fieldset class="main" :disabled="frozen">
        <section class="plate part">
          <Field v-model="doc.question" label="What is asked, in words" :error="errors.question" :maxlength="200" />
          <Choice
            v-model="doc.kind"
            label="How it is asked"
            :options="design.kinds.map((one) => ({ value: one.key as typeof doc.kind, text: one.says }))"
            :error="errors.kind"
          />
          <p class="muted how">“{{ kind?.asks }}” {{ kind?.reads }}</p>
          <div>
            <h2>Which pieces are tasted</h2>
            <ul class="pieces">
              <li v-for="piece in design.pieces" :key="piece.letter">
                <Tick
                  :model-value="doc.letters.includes(piece.letter)"
                  :disabled="frozen"
                  @update:model-value="toggle(piece.letter, $event as boolean)"
                >
                  <PieceBadge :letter="piece.letter" /> <b class="named">{{ piece.name }}</b>
                  <span class="muted">{{ piece.cut }}</span>
                </Tick>
              </li>
            </ul>
            <p v-if="errors.letters" class="says" role="alert">{{ errors.letters }}</p>
          </div>
          <CrossedFields v-if="doc.letters.length === 4" v-model="doc" :errors="errors" :frozen="frozen" />
          <Tick v-if="kind?.twin" v-model="doc.twin" :disabled="frozen">
            a hidden twin: one of them comes twice, by lot, to learn how well each taster repeats
          </Tick>
          <p v-if="errors.twin" class="says" role="alert">{{ errors.twin }}</p>
          <Field
            :model-value="doc.parts.join(', ')"
            label="Parts of one joint or pack to deal out by lot, such as left half, right half"
            :error="errors.parts"
            :maxlength="300"
            @update:model-value="
              doc.parts = $event
                .split(',')
                .map((one) => one.trim())
                .filter(Boolean)
            "
          />
        </section>
        <DesignCard v-model="doc" :design="design" :errors="errors" :frozen="frozen" />
      </fieldset>
      <div class="side">
        <section class="answer shows" aria-label="What this table can show">
          <p class="big">{{ doc.cards }} {{ doc.cards === '1' ? 'card' : 'cards' }}</p>
          <p>{{ design.shows_says }}</p>
          <label class="stated">
            <span>Cards it takes, stated before the first is in: only those decide.</span>
            <Field v-model="doc.cards" label="Cards" hidden-label :error="errors.cards" />
          </label>
        </section>
        <FairTest v-if="fair" :fair="fair" compact :taps="!frozen" :crosses="!frozen" @even="even" @cross="cross" />
        <BandPlate :trial="id" />
        <ServingForm :design="design" @saved="show" @refused="refused" />
      </div>
    </div>
  </main>
  <main v-else>
    <h1>The trial</h1>
    <p class="muted">Laying it out …</p>
  </main>
</template>

<style scoped src="./station.css"></style>
<style scoped>
.frozen {
  padding: var(--s-10) var(--s-16);
}
.main {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
.main {
  display: grid;
  gap: var(--s-16);
}
.part {
  display: grid;
  gap: var(--s-14);
  padding: var(--s-20) var(--s-24);
}
.how {
  margin: 0;
  font-size: var(--t-s);
}
.pieces {
  list-style: none;
  margin: var(--s-4) 0 0;
  padding: 0;
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: var(--s-4) 0 0;
}
.stated {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 84px;
  gap: var(--s-12);
  align-items: center;
  margin-top: var(--s-12);
  font-size: var(--t-s);
}
.named {
  margin-right: var(--s-8);
}
</style>
