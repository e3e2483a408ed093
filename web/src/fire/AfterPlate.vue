<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { usePreferences } from '../app/preferences'
import PieceBadge from '../draw/PieceBadge.vue'
import { duration, shortDay, time } from '../kit/units'
import Why from '../kit/Why.vue'
import AfterForm from './AfterForm.vue'
import { useThisFire } from './useFire'

/** After the cook: times against the plan, what was lost, who ate how much, what is left over. */
const { fire, id } = useThisFire()
const { show } = usePreferences()
/** What the log stands at: another event, or another end, is another reading. */
const stands = computed(() => fire.value?.events.map((one) => one.key).join() ?? '')
const { data } = useQuery({
  queryKey: ['fire', 'after', id, stands],
  queryFn: () => call(api.GET('/api/fire/{cook_id}/after', { params: { path: { cook_id: id.value ?? '' } } })),
  enabled: computed(() => !!id.value),
  placeholderData: (before) => before,
})
const reading = computed(() => data.value?.reading ?? null)
type Piece = Schemas['PieceAfter']
const last = (piece: Piece) => piece.weighed.at(-1)
function told(piece: Piece): string {
  const of = piece.happened
  const parts = [
    of.end_c === null ? '' : `${show.value.temperature(of.end_c)} as it came off`,
    of.highest_c === null ? '' : `${show.value.temperature(of.highest_c)} at most`,
    of.feel ? `feels ${of.feel}` : '',
    of.colour,
    of.plate_s === null ? '' : `${duration(of.plate_s)} to the plates`,
  ]
  return parts.filter(Boolean).join(', ')
}
</script>

<template>
  <section v-if="reading" class="plate after" aria-label="After the cook">
    <h2>After the cook</h2>
    <ul class="pieces">
      <li v-for="piece in reading.pieces" :key="piece.letter">
        <PieceBadge :letter="piece.letter" />
        <div>
          <p v-if="piece.off_at">
            <b>Off at {{ time(piece.off_at) }}</b
            >, {{ piece.beside_plan || 'no plan was kept' }}; {{ duration(piece.happened.fire_s ?? 0) }} on the
            fire<template v-if="piece.happened.rest_s !== null"
              >, {{ duration(piece.happened.rest_s) }} at rest</template
            >
          </p>
          <p v-else><b>Still on</b> since {{ time(piece.on_at) }}</p>
          <p v-if="told(piece)" class="muted">{{ told(piece) }}</p>
          <p v-if="piece.loss && last(piece)">
            {{ show.mass(last(piece)?.grams ?? 0) }} cooked: it lost
            <Why :figure="piece.loss" :of="`what ${piece.letter} lost`">{{ Math.round(piece.loss.value) }} %</Why
            ><template v-if="piece.expected"
              >; this heat takes
              <Why :figure="piece.expected" :of="`what the heat takes of ${piece.letter}`"
                >{{ Math.round(piece.expected.low ?? piece.expected.value) }} to
                {{ Math.round(piece.expected.high ?? piece.expected.value) }} %</Why
              ></template
            >
          </p>
          <p v-for="one in piece.scorched" :key="one.name" class="burnt">
            {{ one.name }} was above its {{ show.temperature(one.scorch_c) }} for {{ duration(one.lasts_s) }}: it turns
            bitter there.
          </p>
        </div>
      </li>
    </ul>
    <p v-if="reading.eaten">
      It fed {{ reading.fed }}:
      <Why :figure="reading.eaten" of="what an eater ate">{{ show.mass(reading.eaten.value) }}</Why> of meat an
      eater<template v-if="reading.share !== null"
        >, {{ Math.round(reading.share * 100) }} % of the usual portion; the next shopping goes by it</template
      >.
    </p>
    <p v-for="one in reading.says" :key="one" class="muted">{{ one }}</p>
    <ul v-if="reading.left.length" class="left">
      <li v-for="one in reading.left" :key="`${one.letter}${one.at}`" :class="{ stop: one.too_long }">
        <b>{{ one.letter }}: {{ show.mass(one.grams) }}, {{ one.where }}</b>
        <template v-if="one.use_by && !one.too_long"> use by {{ shortDay(one.use_by) }}.</template>
        {{ show.sentence(one.says) }}
        <template v-if="one.warms">
          Covered in the oven at {{ show.temperature(one.oven_c) }} that takes about
          <Why :figure="one.warms" :of="`how long ${one.letter} takes to warm`">{{
            duration(one.warms.value * 60)
          }}</Why>.
        </template>
      </li>
    </ul>
    <p v-if="reading.left.length" class="muted">Guidance. What your local food authority says comes first.</p>
    <AfterForm :pieces="reading.pieces" />
    <p v-for="one in data?.next_time ?? []" :key="one.key">
      <b>Next time{{ one.letter ? `, ${one.letter}` : '' }}:</b> {{ one.note }}
    </p>
  </section>
</template>

<style scoped>
.after {
  padding: var(--s-14) var(--s-20);
  display: grid;
  gap: var(--s-10);
}
.pieces,
.left {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: var(--s-10);
}
.pieces li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--s-12);
}
p {
  margin: 0;
}
.burnt {
  color: var(--caution);
}
.stop {
  color: var(--stop);
}
</style>
