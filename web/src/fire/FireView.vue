<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call } from '../api/client'
import { keepsPage } from '../app/offline'
import { duration, time } from '../kit/units'
import AfterPlate from './AfterPlate.vue'
import AlarmBar from './AlarmBar.vue'
import BeginFire from './BeginFire.vue'
import FireAnswer from './FireAnswer.vue'
import FireClocks from './FireClocks.vue'
import FireHeats from './FireHeats.vue'
import FireLog from './FireLog.vue'
import FirePicture from './FirePicture.vue'
import GratePlate from './GratePlate.vue'
import ProbesPlate from './ProbesPlate.vue'
import ReadingsPlate from './ReadingsPlate.vue'
import SoundTool from './SoundTool.vue'
import SimulatedTool from './SimulatedTool.vue'
import TapButtons from './TapButtons.vue'
import { provideFire } from './useFire'

/** Fire: what happens, by one tap, and when it will be done. */
const props = defineProps<{ id?: string }>()
const { data: found } = useQuery({
  queryKey: ['fire', 'cook'],
  queryFn: () => call(api.GET('/api/fire/cook')),
  enabled: computed(() => !props.id),
})
const id = computed(() => props.id ?? found.value?.id ?? undefined)
const { fire, error, lost, now, waiting, tapAndSay } = provideFire(id)
const reading = computed(() => fire.value?.reading ?? null)
const burning = computed(() => !!fire.value?.began_at && !fire.value.ended_at)
/** Whether something is off already, so that there is something to say of it. */
const over = computed(() => (reading.value?.pieces ?? []).some((piece) => piece.off_at))
const since = computed(() => {
  const { began_at: began, ended_at: ended } = fire.value ?? {}
  if (!began) return ''
  if (ended) return `on from ${time(began)} to ${time(ended)}`
  return `on since ${time(began)}, ${duration((now.value - Date.parse(began)) / 1000)}`
})
</script>

<template>
  <main class="fire">
    <header class="station-head">
      <div>
        <h1>{{ fire ? fire.name : 'Fire' }}</h1>
        <p v-if="fire" class="muted">
          {{ fire.grate }}<span v-if="since">, {{ since }}</span>
        </p>
      </div>
      <span v-if="fire" class="tools">
        <SimulatedTool class="wide" />
        <SoundTool />
        <button v-if="burning" type="button" class="tool" @click="tapAndSay('All off', 'ended')">All off</button>
      </span>
    </header>
    <p v-if="lost" class="plate lost" role="status">
      No connection. This page goes on; what you tap is kept here and sent later.
      <span v-if="waiting.length">{{ waiting.length }} to send.</span>
      <span v-if="!keepsPage()">Do not load it anew: by this address that needs the server.</span>
    </p>
    <p v-else-if="waiting.length" class="muted" role="status">{{ waiting.length }} to send …</p>
    <p v-if="error" class="muted" role="status">{{ error }}</p>
    <p v-if="found && !id" class="plate none">
      No cook is in hand. <router-link to="/">Begin one at home</router-link>, and its fire is here.
    </p>
    <p v-else-if="!fire" class="muted" role="status">Looking at the fire …</p>
    <template v-if="fire">
      <AlarmBar />
      <div v-if="!reading" class="sides">
        <div class="main">
          <BeginFire />
          <ProbesPlate />
        </div>
        <GratePlate />
      </div>
      <div v-else class="sides">
        <div class="main">
          <FireAnswer />
          <FireHeats />
          <AfterPlate v-if="over" class="over" />
          <FirePicture class="picture" />
          <FireLog v-if="burning" class="log" />
        </div>
        <div class="hands">
          <TapButtons v-if="burning" />
          <GratePlate v-if="burning" />
          <FireLog v-else class="log" />
        </div>
      </div>
      <div v-if="reading" class="more">
        <ProbesPlate />
        <ReadingsPlate />
        <FireClocks />
      </div>
    </template>
  </main>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
  align-items: end;
}
.tool {
  border: 1.5px solid var(--rim) !important;
  border-radius: 12px;
  min-height: var(--tap);
  padding: 0 var(--s-16) !important;
  font-weight: 600 !important;
  white-space: nowrap;
}
.lost,
.none {
  padding: var(--s-10) var(--s-16);
  margin-top: var(--s-8);
}
.lost {
  border-color: var(--caution);
}
.sides {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: var(--s-14);
  margin-top: var(--s-10);
  align-items: start;
}
.main,
.hands {
  display: grid;
  gap: var(--s-14);
  min-width: 0;
}
.more {
  columns: 3 340px;
  column-gap: var(--s-14);
  margin-top: var(--s-14);
}
.more > * {
  break-inside: avoid;
  margin: 0 0 var(--s-14);
}
@media (max-width: 960px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
  /* on a phone the buttons come before the picture */
  .main,
  .hands {
    display: contents;
  }
  .picture {
    order: 2;
  }
  .over {
    order: 1;
  }
  .log {
    order: 4;
  }
  .hands > :deep(.grate) {
    order: 3;
  }
}
@media (max-width: 720px) {
  .wide {
    display: none;
  }
  .fire .station-head {
    flex-wrap: nowrap;
    align-items: start;
  }
  .tools {
    flex-wrap: nowrap;
  }
  .sides {
    gap: var(--s-8);
    margin-top: var(--s-4);
  }
  .fire .station-head h1 {
    font-size: var(--t-h3);
  }
  .fire .station-head p {
    display: none;
  }
}
</style>
