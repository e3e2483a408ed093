<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { api, call } from '../api/client'
import { grindName, hasWords, useCatalogue } from '../ui/catalogue'

/** Type ahead in the catalogue, and among one's own blends, to add a line. */
const props = defineProps<{ taken: string[]; own: string; error?: string }>()
const emit = defineEmits<{ grind: [key: string]; inside: [id: string] }>()
const { catalogue } = useCatalogue()
const { data: blends } = useQuery({ queryKey: ['blends'], queryFn: () => call(api.GET('/api/blends')) })
const chosen = ref<string | null>(null)

interface Item {
  value: string
  title: string
  words: string
  says: string
  colour: string
  cure: boolean
}
const items = computed<Item[]>(() =>
  [
    ...(catalogue.value?.grinds ?? []).map((grind) => ({
      value: grind.key,
      title: grindName(grind),
      words: `${grind.name} ${grind.grind} ${grind.family}`,
      says: `${grind.density_g_ml.toFixed(2)} g/ml`,
      colour: grind.colour,
      cure: grind.cure,
    })),
    ...(blends.value ?? [])
      .filter((blend) => !blend.archived && blend.id !== props.own)
      .map((blend) => ({
        value: blend.id,
        title: blend.name,
        words: `${blend.name} ${blend.kind} blend`,
        says: blend.kind,
        colour: '',
        cure: false,
      })),
  ].filter((item) => !props.taken.includes(item.value)),
)

/** Every word typed must stand somewhere in the name, the grind or the family. */
function matches(_: string, typed: string, item?: { raw: Item }): boolean {
  // a cure is never offered for a seasoning: it is found by its own name alone
  if (item?.raw.cure && !/cur|nitri/i.test(typed)) return false
  return hasWords(item?.raw.words ?? '', typed)
}

async function take(key: string | null) {
  if (!key) return
  if (key.includes('/')) emit('grind', key)
  else emit('inside', key)
  await nextTick()
  chosen.value = null
}
const box = useTemplateRef<{ focus: () => void }>('box')
defineExpose({ focus: () => box.value?.focus() })
</script>

<template>
  <div class="add">
    <v-autocomplete
      ref="box"
      v-model="chosen"
      :items="items"
      :custom-filter="matches"
      placeholder="Add an ingredient or a blend: type its name"
      aria-label="Add an ingredient"
      no-data-text="Not in the catalogue. Try another word, such as pepper or vinegar."
      :menu-props="{ maxHeight: 300 }"
      @update:model-value="take"
    >
      <template #item="{ item, props: row }">
        <v-list-item v-bind="row" :title="undefined">
          <span class="item">
            <i v-if="item.colour" :style="{ background: item.colour }" aria-hidden="true" />
            <i v-else class="blend" aria-hidden="true" />
            <span>{{ item.title }}</span>
            <small>{{ item.says }}</small>
          </span>
        </v-list-item>
      </template>
    </v-autocomplete>
    <p v-if="error" class="says" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.add {
  border-top: 1px solid var(--line);
  padding: 8px 0 4px;
  max-width: 460px;
}
.add :deep(.v-field) {
  border: 1.5px dashed var(--line-strong);
}
.item {
  display: flex;
  align-items: center;
  gap: 10px;
}
i {
  width: 14px;
  height: 14px;
  border-radius: 4px;
  border: 1px solid var(--line-strong);
  flex: none;
}
.blend {
  border-radius: 50%;
  border: 2px solid var(--rim);
}
small {
  color: var(--muted);
  font-size: 13px;
  margin-left: auto;
}
.says {
  color: var(--stop);
  font-size: 14px;
  margin: 4px 0 0;
}
</style>
