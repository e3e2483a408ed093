<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useChange } from '../api/change'
import Select from '../kit/Select.vue'
import BringLine from './BringLine.vue'
import { kinds } from './kinds'
import { useBring } from './useBring'
import Field from '../kit/Field.vue'

/** A list or a recipe pasted or dropped, shown line by line with what was understood; nothing is dropped by itself. */
const router = useRouter()

const EXAMPLE = `2 tbsp smoked paprika
1½ tsp black pepper, cracked
1 cup + 2 tbsp brown sugar
a small handful of rosemary
2 EL Salz`
const bring = useBring()
const { text, unread, errors, brought, ask, errorOf, answer, given, asked, ready, chosenKind, chosenName, file } = bring
const make = useChange('blends', async () => {
  const made = await bring.make()
  await router.push(`/blend/${made.id}`)
})
</script>

<template>
  <main>
    <header class="station-head">
      <div>
        <h1>Bring a blend in</h1>
        <p class="muted">
          A list as people write it, a recipe page’s own data (schema.org), a CSV table or Markdown. You see every line
          before anything is kept.
        </p>
      </div>
      <div class="tools">
        <label class="v-btn pick">
          Open a file<input
            type="file"
            class="sr-only"
            accept=".txt,.md,.csv,.json,.jsonld,.html,.htm,text/*,application/json,application/ld+json"
            @change="file"
          />
        </label>
      </div>
    </header>
    <div class="two">
      <section class="plate paste" @dragover.prevent @drop.prevent="file($event)">
        <label for="pasted">The list, as it is said or written</label>
        <textarea id="pasted" v-model="text" spellcheck="false" :aria-invalid="!!errors.text" :placeholder="EXAMPLE" />
        <p v-if="errors.text" class="says" role="alert">
          {{ errors.text }} <button v-if="unread" type="button" class="link" @click="ask">Read it again</button>
        </p>
      </section>
      <section class="plate read" aria-label="What was understood">
        <div v-if="!brought" class="muted empty">
          <p>Paste a list, and what was understood shows here, line by line.</p>
          <v-btn @click="text = EXAMPLE">Try it with these lines</v-btn>
        </div>
        <template v-else>
          <p v-for="note in brought.notes" :key="note" class="remark">{{ note }}</p>
          <ul>
            <BringLine
              v-for="(line, at) in brought.lines"
              :key="`${at} ${line.text}`"
              :line="line"
              :error-of="(item) => errorOf(at, item)"
              :given="(item) => given(at, item)"
              @answer="(item, said) => answer(at, item, said)"
            />
          </ul>
          <div v-if="brought.steps.length" class="steps">
            <h2>Method</h2>
            <ol>
              <li v-for="step in brought.steps" :key="step">{{ step }}</li>
            </ol>
          </div>
          <p v-for="problem in brought.problems" :key="problem" class="says" role="alert">{{ problem }}</p>
        </template>
      </section>
    </div>
    <footer v-if="brought" class="plate make" :class="{ asks: asked }">
      <p class="big" role="status">
        <template v-if="asked">{{ asked }} {{ asked === 1 ? 'question' : 'questions' }} left</template>
        <template v-else-if="brought.made.length">{{ brought.made.length }} lines, {{ brought.batch }}</template>
        <template v-else>Nothing to make yet</template>
      </p>
      <Field
        v-model="chosenName"
        label="Name of the blend"
        hidden-label
        :maxlength="80"
        placeholder="Name of the blend"
        class="name"
      />
      <Select
        v-model="chosenKind"
        label="Kind of blend"
        hidden-label
        :options="kinds.map((of) => ({ value: of, title: of }))"
      />
      <v-btn class="solid" :disabled="!ready" @click="make">Make the blend</v-btn>
    </footer>
  </main>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: var(--s-16);
  align-items: start;
}
.paste {
  padding: var(--s-16) var(--s-20);
  display: grid;
  gap: var(--s-6);
}
.paste label {
  font-size: var(--t-s);
  color: var(--muted);
}
textarea {
  line-height: 1.6;
  min-height: 380px;
}
.read {
  padding: var(--s-12) var(--s-20);
  min-height: 200px;
}
.empty {
  text-align: center;
  padding: 60px var(--s-20);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.remark {
  font-size: var(--t-s);
  color: var(--muted);
  margin: var(--s-4) 0;
}
.steps {
  border-top: 1px solid var(--line);
  padding: var(--s-10) 0;
}
.steps ol {
  margin: var(--s-4) 0 0;
  padding-left: var(--s-24);
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
  margin: var(--s-6) 0;
}
.pick {
  display: inline-flex;
  align-items: center;
  padding: 0 var(--s-16);
  cursor: pointer;
}
.pick:focus-within {
  outline: 3px solid var(--focus);
}
.make {
  position: sticky;
  bottom: 12px;
  margin-top: var(--s-16);
  padding: var(--s-12) var(--s-20);
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-14);
  align-items: center;
}
.make p {
  margin: 0 auto 0 0;
  font-size: var(--t-h1);
}
.name {
  flex: 0 1 260px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  textarea {
    min-height: 180px;
  }
  /* how many questions are left, and the way on, stay in view */
  .make {
    position: sticky;
    bottom: 66px;
    gap: var(--s-6) var(--s-10);
    padding: var(--s-10) var(--s-12);
  }
  .make .big {
    flex: 1 1 100%;
    font-size: var(--t-xl);
  }
  .make > .field {
    flex: 1 1 40%;
  }
  .make.asks > :not(.big) {
    display: none;
  }
}
</style>
