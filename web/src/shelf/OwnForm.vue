<script setup lang="ts">
/** The dialog that something of one's own is made in: its fields, what it comes to, and the ways out of it. */
const open = defineModel<boolean>({ required: true })
withDefaults(defineProps<{ label: string; changing?: string; keeps?: string }>(), { keeps: 'Put it in the catalogue' })
defineEmits<{ keep: [] }>()
</script>

<template>
  <v-dialog v-model="open" max-width="660" :aria-label="label" scrollable>
    <form class="plate own" novalidate @submit.prevent="$emit('keep')">
      <h2>{{ changing ? `Change ${changing}` : label }}</h2>
      <slot />
      <div class="ways">
        <p class="reads" role="status"><slot name="reads" /></p>
        <v-btn type="submit" class="solid">{{ changing ? 'Keep the change' : keeps }}</v-btn>
        <v-btn class="quiet" @click="open = false">Leave it</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
/* as high from the start as it will be: what is pointed at does not move when an answer comes */
.own {
  height: min(780px, 90dvh);
  padding: var(--s-24) var(--s-24);
  display: flex;
  flex-direction: column;
  gap: var(--s-14);
  overflow-y: auto;
}
p {
  margin: 0;
}
.reads {
  flex-basis: 100%;
  min-height: 2.9em;
}
/* in sight whatever the screen's height: the form scrolls behind it */
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s-10);
  position: sticky;
  bottom: -22px;
  margin: auto -24px -22px;
  padding: var(--s-12) var(--s-24) var(--s-16);
  background: var(--plate);
  border-top: 1px solid var(--line);
}
</style>
