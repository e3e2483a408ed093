<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, call, type Schemas } from '../api/client'
import { refresh } from '../api/kept'
import AddLine from '../blend/AddLine.vue'
import { useCatalogue } from '../api/catalogue'
import Choice from '../kit/Choice.vue'
import Field from '../kit/Field.vue'
import { percent } from '../kit/units'
import OwnForm from './OwnForm.vue'
import PacketText from './PacketText.vue'
import { useOwnForm } from './useOwnForm'
import Tick from '../kit/Tick.vue'

/** An ingredient of one's own: from a packet, from amounts, or as another one with changes; what it comes to below. */
type Doc = Schemas['OwnDocument']
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ name?: string; own?: Schemas['OwnOut'] }>()
const emit = defineEmits<{ made: [key: string] }>()
const queries = useQueryClient()
const { grinds } = useCatalogue()

const blank = (): Doc => ({
  name: props.name ?? '', made_from: 'label', like: '', portion: '', sodium: '', salt: '', sugars: '', fat: '',
  carbohydrate: '', protein: '', water: '', acid: '', spoon: 'tbsp', spoon_mass: '', wet: false, allergens: [], keeps: '',
}) // prettier-ignore
const { doc, errors, reads, keeping } = useOwnForm<Doc, Schemas['OwnReadOut']>({
  open,
  blank,
  own: () => props.own,
  read: (body, signal) => call(api.POST('/api/shelf/own-ingredients/read', { body, signal })),
})

const ways: { value: Doc['made_from']; text: string }[] = [
  { value: 'label', text: 'its packet' }, { value: 'amounts', text: 'amounts' }, { value: 'like', text: 'another one' },
] // prettier-ignore
const spoons = (['tsp', 'tbsp', 'cup'] as const).map((value) => ({ value, text: value }))
const fields = computed<{ key: 'sodium' | 'salt' | 'sugars' | 'fat' | 'carbohydrate' | 'protein' | 'water' | 'acid'; label: string; placeholder: string }[]>(() =>
  doc.made_from === 'label'
    ? [
        { key: 'sodium', label: 'Sodium', placeholder: '310 mg' },
        { key: 'salt', label: 'or salt', placeholder: '1.2 g' },
        { key: 'sugars', label: 'Sugars', placeholder: '0 g' },
        { key: 'fat', label: 'Fat', placeholder: '0 g' },
        { key: 'carbohydrate', label: 'Carbohydrate', placeholder: '1 g' },
        { key: 'protein', label: 'Protein', placeholder: '0 g' },
      ]
    : [
        { key: 'salt', label: 'Salt, %', placeholder: doc.made_from === 'like' ? 'as it' : '5' },
        { key: 'sugars', label: 'Sugar, %', placeholder: doc.made_from === 'like' ? 'as it' : '2' },
        { key: 'fat', label: 'Fat, %', placeholder: doc.made_from === 'like' ? 'as it' : '0' },
        { key: 'water', label: 'Water, %', placeholder: doc.made_from === 'like' ? 'as it' : '90' },
        { key: 'acid', label: 'Acid, %', placeholder: doc.made_from === 'like' ? 'as it' : '0' },
      ],
) // prettier-ignore
const like = computed(() => grinds.value.get(doc.like ?? ''))

const keep = keeping(async () => {
  const kept = props.own
    ? await call(
        api.PUT('/api/shelf/own-ingredients/{own_id}', {
          params: { path: { own_id: props.own.id } },
          body: { ...doc, version: props.own.version },
        }),
      )
    : await call(api.POST('/api/shelf/own-ingredients', { body: { ...doc } }))
  await refresh(queries, ['catalogue'], ['own ingredients'], ['blends'])
  emit('made', kept.key)
})
</script>

<template>
  <OwnForm v-model="open" label="An ingredient of your own" :changing="own?.name" @keep="keep">
    <Field v-model="doc.name!" label="Its name" placeholder="Grandmother’s dust" :error="errors.name" autofocus />
    <Choice v-model="doc.made_from!" label="Known from" :options="ways" :error="errors.made_from" />
    <PacketText v-if="doc.made_from === 'label'" @read="Object.assign(doc, $event)" />
    <div v-if="doc.made_from === 'like'" class="like">
      <p v-if="like">
        Like <b>{{ like.name }}</b>, but for what you write here.
      </p>
      <AddLine :taken="[]" own="" ingredients @grind="(key) => (doc.like = key)" />
      <p v-if="errors.like" class="says" role="alert">{{ errors.like }}</p>
    </div>
    <div class="fields">
      <Field
        v-if="doc.made_from === 'label'"
        v-model="doc.portion!"
        label="A portion is"
        placeholder="100 g"
        :error="errors.portion"
      />
      <Field
        v-for="field in fields"
        :key="field.key"
        v-model="doc[field.key]!"
        :label="field.label"
        :placeholder="field.placeholder"
        :error="errors[field.key]"
      />
    </div>
    <div class="spoon">
      <Choice v-model="doc.spoon!" label="Weigh a level" :options="spoons" />
      <Field
        v-model="doc.spoon_mass!"
        label="It weighs"
        :placeholder="like ? 'as that' : '9 g'"
        :error="errors.spoon_mass"
      />
      <Tick v-if="!like" v-model="doc.wet!" class="wet">it is liquid</Tick>
    </div>
    <Field
      :model-value="(doc.allergens ?? []).join(', ')"
      label="Allergens on the packet"
      placeholder="celery, mustard"
      :error="errors.allergens"
      @update:model-value="
        doc.allergens = $event
          .split(',')
          .map((one) => one.trim().toLowerCase())
          .filter(Boolean)
      "
    />
    <Field v-model="doc.keeps!" label="It keeps" :placeholder="like ? 'as that' : '6 months'" :error="errors.keeps" />
    <template #reads
      ><template v-if="reads">
        <b>{{ percent(reads.salt) }} salt</b>, {{ percent(reads.sugars) }} sugar, {{ percent(reads.fat) }} fat,
        {{ percent(reads.water) }} water; {{ reads.density_g_ml.toFixed(2) }} g/ml. Give or take
        {{ Math.round(reads.error) }} % of each.
      </template></template
    >
  </OwnForm>
</template>

<style scoped>
p {
  margin: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
  gap: var(--s-10);
}
.spoon {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10) var(--s-14);
  align-items: end;
}
.wet {
  font-size: var(--t-m);
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: var(--s-8);
}
.says {
  color: var(--stop);
  font-size: var(--t-s);
}
</style>
