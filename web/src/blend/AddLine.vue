<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { grindName, useCatalogue, type Grind } from '../ui/catalogue'

/** Type ahead in the catalogue to add a line. */
const props = defineProps<{ taken: string[] }>()
const emit = defineEmits<{ add: [grind: string] }>()
const { catalogue } = useCatalogue()
const chosen = ref<string | null>(null)

const items = computed(() =>
  (catalogue.value?.grinds ?? [])
    .filter((grind) => !props.taken.includes(grind.key))
    .map((grind) => ({ value: grind.key, title: grindName(grind), raw: grind })),
)
/** Every word typed must stand somewhere in the name, the grind or the family. */
function matches(_: string, typed: string, item?: { raw: { raw: Grind } }): boolean {
  const grind = item?.raw.raw
  if (!grind) return false
  const text = `${grind.name} ${grind.grind} ${grind.family}`.toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word))
}

async function take(key: string | null) {
  if (!key) return
  emit('add', key)
  await nextTick()
  chosen.value = null
}
</script>

<template>
  <div class="add">
    <v-autocomplete
      v-model="chosen"
      :items="items"
      :custom-filter="matches"
      placeholder="Add an ingredient: type its name"
      aria-label="Add an ingredient"
      no-data-text="Not in the catalogue. Try another word, such as pepper or vinegar."
      :menu-props="{ maxHeight: 300 }"
      @update:model-value="take"
    >
      <template #item="{ item, props: row }">
        <v-list-item v-bind="row" :title="undefined">
          <span class="item">
            <i :style="{ background: item.raw.colour }" aria-hidden="true" />
            <span>{{ grindName(item.raw) }}</span>
            <small>{{ item.raw.density_g_ml.toFixed(2) }} g/ml</small>
          </span>
        </v-list-item>
      </template>
    </v-autocomplete>
  </div>
</template>

<style scoped>
.add {
  border-top: 1px solid var(--line);
  padding: 8px 0 4px;
  max-width: 420px;
}
.add :deep(.v-field) {
  padding: 0 10px;
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
}
small {
  color: var(--muted);
  font-size: 13px;
  margin-left: auto;
}
</style>
