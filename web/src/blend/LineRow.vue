<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, useId, useTemplateRef } from 'vue'
import type { Schemas } from '../api/client'
import Choice from '../ui/Choice.vue'
import { usePreferences } from '../ui/preferences'
import { percent } from '../ui/units'
import Why from '../ui/Why.vue'

/** One line of a blend: parts as typed, by spoon or scale, and what they come to. */
const parts = defineModel<string>('parts', { required: true })
const basis = defineModel<'spoon' | 'scale'>('basis', { required: true })
const props = defineProps<{
  name: string
  grind: string
  colour: string
  reading: Schemas['LineReadingOut'] | null
  error?: string
}>()
defineEmits<{ remove: [] }>()

const { show } = usePreferences()
const full = computed(() => (props.grind ? `${props.name}, ${props.grind}` : props.name))
const id = useId()
const input = useTemplateRef('input')
defineExpose({ focus: () => input.value?.select() })
</script>

<template>
  <div class="line" :class="{ wrong: error }">
    <span class="who"
      ><i class="swatch" :style="{ background: colour }" aria-hidden="true" /><span
        >{{ name }}<small v-if="grind">{{ grind }}</small></span
      ></span
    >
    <input
      :id="id"
      ref="input"
      v-model="parts"
      class="parts"
      inputmode="text"
      autocomplete="off"
      :aria-label="`Parts of ${full}`"
      :aria-invalid="!!error"
      :aria-describedby="error ? `${id}-says` : undefined"
    />
    <Choice
      v-model="basis"
      :label="`${full} goes by`"
      hidden-label
      class="basis"
      :options="[
        { value: 'spoon', text: 'spoon' },
        { value: 'scale', text: 'scale' },
      ]"
    />
    <template v-if="reading">
      <span class="n share">
        <Why :figure="reading.share" :of="`Share of ${full}`">{{ percent(reading.share.value) }}</Why>
      </span>
      <span class="n weigh">
        <Why :figure="reading.mass" :of="`Weight of ${full}`"
          ><b>{{ show.mass(reading.mass.value) }}</b></Why
        >
      </span>
      <span class="spoons">
        <Why :figure="reading.spoons.volume" :of="`Spoons of ${full}`">{{ reading.spoons.text }}</Why>
      </span>
    </template>
    <template v-else
      ><span class="n share">…</span><span class="n weigh">…</span><span class="spoons">…</span></template
    >
    <button type="button" class="remove" :aria-label="`Remove ${full}`" @click="$emit('remove')">
      <v-icon :icon="mdiClose" size="18" />
    </button>
    <p v-if="error" :id="`${id}-says`" class="says" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: var(--line-columns);
  gap: 2px 12px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 4px 0;
  min-height: 46px;
}
.who {
  display: flex;
  align-items: center;
  gap: 10px;
  font-weight: 600;
  line-height: 1.2;
}
.swatch {
  width: 16px;
  height: 16px;
  border-radius: 5px;
  border: 1.5px solid var(--line-strong);
  flex: none;
}
small {
  display: block;
  font-weight: 400;
  font-size: 13px;
  color: var(--muted);
}
.parts {
  text-align: right;
  font-weight: 600 !important;
}
.wrong .parts {
  border-color: var(--stop);
}
.n {
  text-align: right;
}
.spoons {
  font-size: 15px;
  min-width: 0;
}
.spoons :deep(.why) {
  white-space: normal;
  text-align: left;
}
.basis :deep(label) {
  padding: 4px 8px;
  font-size: 13px;
}
.remove {
  width: 36px;
  height: 36px;
  border-radius: 50%;
  color: var(--muted);
}
.remove:hover {
  background: var(--tint);
}
.says {
  grid-column: 1 / -1;
  color: var(--stop);
  font-size: 14px;
  margin: 0;
}
@media (max-width: 720px) {
  .line {
    grid-template-columns: 84px 1fr 1fr 44px;
    padding: 10px 0;
    gap: 8px 12px;
  }
  .who {
    grid-column: 1 / 4;
    grid-row: 1;
  }
  .remove {
    grid-column: 4;
    grid-row: 1;
    width: 44px;
    height: 44px;
  }
  .basis {
    grid-column: 2 / -1;
  }
  .share {
    text-align: left;
  }
  .weigh {
    text-align: left;
  }
  .spoons {
    grid-column: 3 / -1;
    text-align: right;
  }
}
</style>
