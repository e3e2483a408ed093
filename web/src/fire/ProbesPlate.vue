<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, call, sentenceOf, type Schemas } from '../api/client'
import { newKey } from '../api/keys'
import { usePreferences } from '../app/preferences'
import Field from '../kit/Field.vue'
import Select from '../kit/Select.vue'
import { say } from '../kit/notice'
import { time } from '../kit/units'
import SimulatedTool from './SimulatedTool.vue'
import { useThisFire } from './useFire'

/** Probes: what each channel measures, put into a piece by a tap; devices that may send readings. */
type Probe = Schemas['ProbeOut']
const { fire, id, change } = useThisFire()
const { show } = usePreferences()
const queries = useQueryClient()
const probes = computed(() => fire.value?.probes ?? [])
const { data: devices } = useQuery({
  queryKey: ['fire', 'devices'],
  queryFn: () => call(api.GET('/api/fire/devices')),
})
const name = ref('')
const token = ref('')
const adding = ref(false)
const wherever = computed(() => [
  { value: 'none', title: 'not in use' },
  { value: 'pit', title: 'pit' },
  ...(fire.value?.pieces ?? []).flatMap((piece) => [
    { value: `centre ${piece.letter}`, title: `centre of ${piece.letter}` },
    { value: `surface ${piece.letter}`, title: `surface of ${piece.letter}` },
  ]),
  { value: 'spot', title: 'a spot of the grate' },
])
const used = (probe: Probe) => (probe.letter ? `${probe.role} ${probe.letter}` : probe.role)
async function use(probe: Probe, where: string | number | null | undefined) {
  const of = id.value
  if (!of || !where) return
  const [role = 'none', letter = ''] = String(where).split(' ')
  await change(() =>
    call(
      api.POST('/api/fire/{cook_id}/probes', {
        params: { path: { cook_id: of } },
        body: { key: newKey(), device: probe.device, channel: probe.channel, role, letter, name: probe.name },
      }),
    ),
  )
}
async function add() {
  try {
    const made = await call(api.POST('/api/fire/devices', { body: { name: name.value } }))
    token.value = made.token
    name.value = ''
    await queries.invalidateQueries({ queryKey: ['fire', 'devices'] })
  } catch (failure) {
    say(sentenceOf(failure))
  }
}
async function revoke(device: string) {
  try {
    await call(api.POST('/api/fire/devices/{device_id}/revoke', { params: { path: { device_id: device } } }))
    await queries.invalidateQueries({ queryKey: ['fire', 'devices'] })
  } catch (failure) {
    say(sentenceOf(failure))
  }
}
async function putBack(letter: string) {
  const of = id.value
  if (!of) return
  await change(() =>
    call(
      api.POST('/api/fire/{cook_id}/simulated/handle', {
        params: { path: { cook_id: of } },
        body: { do: 'put back', letter },
      }),
    ),
  )
}
/** Thermometers that may send; those that no longer may are shown where another one is made. */
const listed = computed(() => (devices.value ?? []).filter((device) => adding.value || !device.revoked))
const slipped = computed(() =>
  (fire.value?.reading?.pieces ?? []).filter((piece) => piece.fault && piece.fault.kind !== 'dead'),
)
</script>

<template>
  <section class="plate probes" aria-label="Probes">
    <h2>Probes</h2>
    <ul v-if="probes.length" class="rows">
      <li v-for="probe in probes" :key="`${probe.device}/${probe.channel}`">
        <span class="shown">
          <b>{{ probe.channel }}</b>
          <small class="muted">{{ probe.device_name }}</small>
          <span v-if="probe.celsius !== null">{{ show.temperature(probe.celsius) }}</span>
          <small v-if="probe.heard_at" class="muted">{{ time(probe.heard_at) }}</small>
          <small v-if="probe.clock" class="wrong">{{ probe.clock }}</small>
        </span>
        <Select
          :model-value="used(probe)"
          :label="`${probe.channel} measures`"
          hidden-label
          :options="wherever"
          @update:model-value="use(probe, $event)"
        />
      </li>
    </ul>
    <p v-else class="muted">No probe was heard. Temperatures typed by hand count the same: tap Read.</p>
    <p v-for="piece in fire?.simulated ? slipped : []" :key="piece.letter">
      <button type="button" class="link" @click="putBack(piece.letter)">
        Put {{ piece.letter }}’s simulated probe back
      </button>
    </p>
    <SimulatedTool class="narrow" />
    <ul v-if="listed.length" class="rows">
      <li v-for="device in listed" :key="device.id">
        <span
          >{{ device.name }}
          <small class="muted">{{
            device.revoked
              ? 'may not send any more'
              : device.heard_at
                ? `heard ${time(device.heard_at)}`
                : 'not heard yet'
          }}</small></span
        >
        <button v-if="!device.revoked" type="button" class="link" @click="revoke(device.id)">Revoke its token</button>
      </li>
    </ul>
    <p v-if="token" class="token">
      Its token, told this once: <code>{{ token }}</code>. docs/thermometer.md says what to send with it.
    </p>
    <form v-if="adding" class="add" @submit.prevent="add">
      <Field v-model="name" label="What the thermometer is called" :maxlength="40" />
      <button type="submit" class="link">Make a token</button>
    </form>
    <button v-else type="button" class="link" @click="adding = true">A thermometer of your own</button>
  </section>
</template>

<style scoped>
.shown {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s-8);
  align-items: baseline;
}
.probes {
  padding: var(--s-14) var(--s-20);
  font-size: var(--t-s);
}
.rows li > :deep(.select) {
  min-width: 150px;
}
.wrong {
  color: var(--caution);
}
.token code {
  word-break: break-all;
}
.add {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: var(--s-8);
  align-items: end;
}
p {
  margin: var(--s-8) 0 0;
}
.narrow {
  display: none;
}
@media (max-width: 720px) {
  .narrow {
    display: flex;
    margin-top: var(--s-8);
  }
}
</style>
