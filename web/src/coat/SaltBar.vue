<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { useCatalogue } from '../ui/catalogue'
import { percent } from '../ui/units'
import Why from '../ui/Why.vue'

/** Salt on the meat by layer, against the usual zones. */
const props = defineProps<{ salt: Schemas['Figure']; zone: string; layers: number[]; kinds: string[] }>()
const { catalogue } = useCatalogue()

const full = computed(() => Math.max(2.8, props.salt.value * 1.15))
const at = (value: number) => `${Math.min(100, (value / full.value) * 100)}%`
const zones = computed(() => (catalogue.value?.zones ?? []).filter((zone) => zone.below_percent !== null))
</script>

<template>
  <div class="salt">
    <p>
      <b class="big"
        ><Why :figure="salt" of="Salt on the meat">{{ percent(salt.value) }} salt</Why></b
      >
      <span class="muted">
        of raw edible weight: {{ zone
        }}<template v-if="salt.low !== null && salt.high !== null"
          >, between {{ percent(salt.low) }} and {{ percent(salt.high) }}</template
        >
      </span>
    </p>
    <div class="bar" aria-hidden="true">
      <i v-for="(value, n) in layers" :key="n" :class="kinds[n]" :style="{ width: at(value) }" />
      <span v-for="edge in zones" :key="edge.name" class="edge" :style="{ left: at(edge.below_percent!) }">
        <em>{{ edge.below_percent }}</em>
      </span>
      <span
        v-if="salt.low !== null && salt.high !== null"
        class="band"
        :style="{ left: at(salt.low), width: `calc(${at(salt.high)} - ${at(salt.low)})` }"
      />
    </div>
  </div>
</template>

<style scoped>
.salt {
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
p {
  margin: 0 0 8px;
  line-height: 1.3;
}
.big {
  font-size: 26px;
  margin-right: 8px;
}
.bar {
  position: relative;
  height: 20px;
  background: var(--tint);
  border-radius: 6px;
  display: flex;
  margin-bottom: 22px;
}
i {
  height: 100%;
}
i:first-child {
  border-radius: 6px 0 0 6px;
}
i.salt,
i.rub,
i.marinade {
  border: 0;
  padding: 0;
}
i.salt {
  background: #a9b8c6;
}
i.rub {
  background: #8e2f1c;
}
i.marinade {
  background: #d9a441;
}
.edge {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border-left: 1.5px solid var(--line-strong);
}
.edge em {
  position: absolute;
  top: 25px;
  transform: translateX(-50%);
  font-style: normal;
  font-size: 13px;
  color: var(--muted);
}
.band {
  position: absolute;
  top: 8px;
  height: 4px;
  background: var(--ink);
  border-radius: 2px;
  opacity: 0.85;
}
</style>
