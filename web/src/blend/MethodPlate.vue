<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, call, type Schemas } from '../api/client'
import { useChange } from '../api/change'
import Field from '../kit/Field.vue'
import { say } from '../kit/notice'
import { usePreferences } from '../app/preferences'
import Why from '../kit/Why.vue'
import Select from '../kit/Select.vue'
import type { BlendOnBench } from './useBlend'

/** How a blend is made, in steps; what is strained off or simmered down changes what it comes to. */
type StepDoc = Schemas['MethodStepDocument']
const steps = defineModel<StepDoc[]>({ required: true })
const props = defineProps<{ bench: BlendOnBench; names: { key: string; name: string }[] }>()
const { show } = usePreferences()
const { reading, errors } = props.bench

const does: Record<StepDoc['do'], string> = {
  mix: 'Mix in', grind: 'Grind', strain: 'Strain out', simmer: 'Simmer down', rest: 'Rest', note: 'Note',
} // prettier-ignore
const whole: Record<string, string> = { mix: 'everything', grind: 'everything', strain: 'all solids' }
const finished = computed(() => {
  const found = reading.value
  return found && Math.abs(found.finished.value - found.batch.value) > 0.05 ? found.finished : null
})
const nameOf = (key: string) => props.names.find((line) => line.key === key)?.name ?? 'gone from the blend'
const free = (step: StepDoc) => props.names.filter((line) => !step.of?.includes(line.key))
const about = (step: StepDoc) => step.do === 'mix' || step.do === 'grind' || step.do === 'strain'
const errorOf = (at: number, key: string) => errors.value[`method.${at}.${key}`]

function change(at: number, part: Partial<StepDoc>) {
  steps.value = steps.value.map((step, i) => (i === at ? { ...step, ...part } : step))
}
function add(kind: StepDoc['do']) {
  const by = kind === 'simmer' ? 'by a third' : ''
  const lasts = kind === 'rest' ? '30 min' : ''
  steps.value = [...steps.value, { do: kind, of: [], to: kind === 'grind' ? 'ground' : '', by, lasts, note: '' }]
}
const name = (at: number, key: string) => change(at, { of: [...(steps.value[at].of ?? []), key] })
const doings = Object.entries(does).map(([value, title]) => ({ value: value as StepDoc['do'], title }))
function shift(at: number, by: number) {
  const moved = [...steps.value]
  moved.splice(at + by, 0, ...moved.splice(at, 1))
  steps.value = moved
}
const router = useRouter()
/** Make a blend of what the sieve holds back, as it is in the book. */
const keepSieve = useChange('blends', async () => {
  await props.bench.autosave.flush()
  const path = { blend_id: props.bench.stored.value!.id }
  const made = await call(api.POST('/api/blends/{blend_id}/sieve', { params: { path } }))
  say(`“${made.name}” is a blend now; put it into the pot or into another.`)
  await router.push(`/blend/${made.id}`)
})
const usual = useChange('blends', async () => {
  steps.value = await call(api.POST('/api/blends/usual-method', { body: props.bench.body() }))
})
</script>

<template>
  <section class="plate method" aria-label="Method">
    <header>
      <h2>Method</h2>
      <p v-if="finished" class="out" role="status">
        {{ show.mass(reading!.batch.value) }} goes in,
        <Why :figure="finished" of="What comes out"
          ><b>{{ show.mass(finished.value) }}</b></Why
        >
        comes out
      </p>
      <v-btn v-if="!steps.length" @click="usual">Write the usual one</v-btn>
    </header>
    <p v-if="!steps.length" class="muted">
      No steps yet: all lines are mixed as they stand. What is strained off or simmered down counts in every number.
    </p>
    <ol v-else>
      <li v-for="(step, at) in steps" :key="at">
        <span class="no">{{ at + 1 }}</span>
        <div class="what">
          <Select
            :model-value="step.do"
            :label="`Step ${at + 1} does`"
            hidden-label
            class="does"
            :options="doings"
            @update:model-value="$event && change(at, { do: $event })"
          />
          <template v-if="about(step)">
            <span v-for="key in step.of" :key="key" class="chip"
              >{{ nameOf(key)
              }}<button
                type="button"
                :aria-label="`Take ${nameOf(key)} out of step ${at + 1}`"
                @click="change(at, { of: step.of!.filter((x) => x !== key) })"
              >
                <v-icon :icon="mdiClose" size="14" /></button
            ></span>
            <span v-if="!step.of?.length" class="muted">{{ whole[step.do] }}</span>
            <Select
              v-if="free(step).length"
              :model-value="null"
              class="pick"
              :label="`Add a line to step ${at + 1}`"
              hidden-label
              placeholder="+ line"
              :options="free(step).map((line) => ({ value: line.key, title: line.name }))"
              @update:model-value="$event && name(at, $event)"
            />
          </template>
          <Field
            v-if="step.do === 'grind'"
            :model-value="step.to ?? ''"
            :label="`Step ${at + 1}: grind to`"
            hidden-label
            placeholder="ground"
            :error="errorOf(at, 'to')"
            class="short"
            @update:model-value="change(at, { to: $event })"
          />
          <Field
            v-if="step.do === 'simmer'"
            :model-value="step.by ?? ''"
            :label="`Step ${at + 1}: how far down`"
            hidden-label
            placeholder="by a third"
            :error="errorOf(at, 'by')"
            class="short"
            @update:model-value="change(at, { by: $event })"
          />
          <Field
            v-if="step.do === 'simmer' || step.do === 'rest'"
            :model-value="step.lasts ?? ''"
            :label="`Step ${at + 1}: how long`"
            hidden-label
            placeholder="10 min"
            :error="errorOf(at, 'lasts')"
            class="short"
            @update:model-value="change(at, { lasts: $event })"
          />
          <Field
            :model-value="step.note ?? ''"
            :label="`Step ${at + 1}: note`"
            hidden-label
            :placeholder="step.do === 'note' ? 'what to do' : 'note'"
            :error="errorOf(at, 'note') ?? errorOf(at, 'of')"
            class="note"
            @update:model-value="change(at, { note: $event })"
          />
        </div>
        <span v-if="(step.do === 'simmer' || step.do === 'strain') && reading?.after_g[at] != null" class="left muted"
          >{{ show.mass(reading.after_g[at]) }} left</span
        >
        <span class="acts">
          <button type="button" :disabled="!at" :aria-label="`Move step ${at + 1} up`" @click="shift(at, -1)">
            <v-icon :icon="mdiArrowUp" size="17" />
          </button>
          <button
            type="button"
            :disabled="at === steps.length - 1"
            :aria-label="`Move step ${at + 1} down`"
            @click="shift(at, 1)"
          >
            <v-icon :icon="mdiArrowDown" size="17" />
          </button>
          <button type="button" :aria-label="`Remove step ${at + 1}`" @click="steps = steps.filter((_, i) => i !== at)">
            <v-icon :icon="mdiClose" size="17" />
          </button>
        </span>
      </li>
    </ol>
    <p v-if="reading && reading.held_g > 0.5" class="muted sieve">
      The sieve holds back {{ show.mass(reading.held_g) }}, about
      {{ Number(reading.held_salt_percent.toPrecision(1)) }} % of it salt.
      <button type="button" class="link" @click="keepSieve">Make a blend of it</button>
    </p>
    <div class="add">
      <button v-for="(says, kind) in does" :key="kind" type="button" @click="add(kind)">+ {{ says }}</button>
    </div>
  </section>
</template>

<style scoped>
.method {
  padding: var(--s-16) var(--s-20);
  margin-top: var(--s-14);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-6) var(--s-16);
}
header p {
  margin: 0;
}
.out {
  margin-left: auto;
}
p.muted {
  font-size: var(--t-s);
  margin: var(--s-6) 0 0;
}
ol {
  list-style: none;
  margin: var(--s-8) 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto auto;
  gap: var(--s-4) var(--s-10);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s-6) 0;
}
.no {
  font-family: var(--display);
  font-weight: 700;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s-6) var(--s-8);
}
.what .pick {
  font-weight: 400;
  width: 92px;
}
.chip {
  display: inline-flex;
  align-items: center;
  background: var(--tint);
  border-radius: 12px;
  padding: var(--s-2) var(--s-2) var(--s-2) var(--s-10);
  font-size: var(--t-m);
  min-height: 32px;
}
.chip button {
  width: 28px;
  height: 28px;
  border-radius: 50%;
}
.short {
  width: 108px;
}
.note {
  flex: 1 1 150px;
}
.left {
  font-size: var(--t-s);
  white-space: nowrap;
}
.acts {
  display: flex;
}
.acts button {
  width: 30px;
  height: 34px;
  border-radius: 10px;
  color: var(--muted);
  padding: 0;
}
.acts button:hover {
  background: var(--tint);
}
.acts button:disabled {
  opacity: 0.3;
  cursor: default;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-6);
  margin-top: var(--s-10);
}
.add button {
  border: 1.5px dashed var(--line-strong);
  border-radius: 12px;
  padding: var(--s-4) var(--s-12);
  font-size: var(--t-s);
  min-height: 34px;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 22px minmax(0, 1fr);
  }
  .what,
  .left,
  .acts {
    grid-column: 2;
  }
  .acts button {
    width: 44px;
    height: 44px;
  }
  .chip,
  .add button {
    min-height: 44px;
  }
  .chip button {
    width: 44px;
    height: 44px;
  }
}
</style>
