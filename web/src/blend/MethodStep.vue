<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js'
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import Field from '../kit/Field.vue'
import IconButton from '../kit/IconButton.vue'
import Select from '../kit/Select.vue'

/** One step of a method: what is done, to which lines, how far and how long. */
type StepDoc = Schemas['MethodStepDocument']
const props = defineProps<{
  step: StepDoc
  at: number
  last: boolean
  names: { key: string; name: string }[]
  /** What is left after it [g], where that is known. */
  left: number | null
  errors: Record<string, string>
}>()
const emit = defineEmits<{ change: [part: Partial<StepDoc>]; shift: [by: number]; remove: [] }>()
const { show } = usePreferences()

const does: Record<StepDoc['do'], string> = {
  mix: 'Mix in', grind: 'Grind', strain: 'Strain out', simmer: 'Simmer down', rest: 'Rest', note: 'Note',
} // prettier-ignore
const doings = Object.entries(does).map(([value, title]) => ({ value: value as StepDoc['do'], title }))
const whole: Record<string, string> = { mix: 'everything', grind: 'everything', strain: 'all solids' }
const nameOf = (key: string) => props.names.find((line) => line.key === key)?.name ?? 'gone from the blend'
const free = computed(() => props.names.filter((line) => !props.step.of?.includes(line.key)))
const about = (step: StepDoc) => step.do === 'mix' || step.do === 'grind' || step.do === 'strain'
const errorOf = (key: string) => props.errors[`method.${props.at}.${key}`]
</script>

<template>
  <li>
    <span class="no">{{ at + 1 }}</span>
    <div class="what">
      <Select
        :model-value="step.do"
        :label="`Step ${at + 1} does`"
        hidden-label
        class="does"
        :options="doings"
        @update:model-value="$event && emit('change', { do: $event })"
      />
      <template v-if="about(step)">
        <span v-for="key in step.of" :key="key" class="chip"
          >{{ nameOf(key)
          }}<button
            type="button"
            :aria-label="`Take ${nameOf(key)} out of step ${at + 1}`"
            @click="emit('change', { of: step.of!.filter((x) => x !== key) })"
          >
            <v-icon :icon="mdiClose" size="14" /></button
        ></span>
        <span v-if="!step.of?.length" class="muted">{{ whole[step.do] }}</span>
        <Select
          v-if="free.length"
          :model-value="null"
          class="pick"
          :label="`Add a line to step ${at + 1}`"
          hidden-label
          placeholder="+ line"
          :options="free.map((line) => ({ value: line.key, title: line.name }))"
          @update:model-value="$event && emit('change', { of: [...(step.of ?? []), $event] })"
        />
      </template>
      <Field
        v-if="step.do === 'grind'"
        :model-value="step.to ?? ''"
        :label="`Step ${at + 1}: grind to`"
        hidden-label
        placeholder="ground"
        :error="errorOf('to')"
        class="short"
        @update:model-value="emit('change', { to: $event })"
      />
      <Field
        v-if="step.do === 'simmer'"
        :model-value="step.by ?? ''"
        :label="`Step ${at + 1}: how far down`"
        hidden-label
        placeholder="by a third"
        :error="errorOf('by')"
        class="short"
        @update:model-value="emit('change', { by: $event })"
      />
      <Field
        v-if="step.do === 'simmer' || step.do === 'rest'"
        :model-value="step.lasts ?? ''"
        :label="`Step ${at + 1}: how long`"
        hidden-label
        placeholder="10 min"
        :error="errorOf('lasts')"
        class="short"
        @update:model-value="emit('change', { lasts: $event })"
      />
      <Field
        :model-value="step.note ?? ''"
        :label="`Step ${at + 1}: note`"
        hidden-label
        :placeholder="step.do === 'note' ? 'what to do' : 'note'"
        :error="errorOf('note') ?? errorOf('of')"
        class="note"
        @update:model-value="emit('change', { note: $event })"
      />
    </div>
    <span v-if="(step.do === 'simmer' || step.do === 'strain') && left !== null" class="left muted"
      >{{ show.mass(left) }} left</span
    >
    <span class="acts">
      <IconButton :disabled="!at" :label="`Move step ${at + 1} up`" :icon="mdiArrowUp" @click="emit('shift', -1)" />
      <IconButton :disabled="last" :label="`Move step ${at + 1} down`" :icon="mdiArrowDown" @click="emit('shift', 1)" />
      <IconButton :label="`Remove step ${at + 1}`" :icon="mdiClose" @click="emit('remove')" />
    </span>
  </li>
</template>

<style scoped>
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
@media (max-width: 720px) {
  li {
    grid-template-columns: 22px minmax(0, 1fr);
  }
  .what,
  .left,
  .acts {
    grid-column: 2;
  }
  .chip {
    min-height: 44px;
  }
  .chip button {
    width: 44px;
    height: 44px;
  }
}
</style>
