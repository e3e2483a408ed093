<script setup lang="ts" generic="Own extends { id: string; name: string; retired: boolean; used_in: string[] }">
/** Things of the household's own, each with what it comes to and where it is, to change or to take away. */
defineProps<{ title: string; what: string; rows?: Own[]; failed?: string }>()
defineEmits<{ edit: [one?: Own]; remove: [one: Own] }>()
defineSlots<{ default(given: { one: Own }): unknown }>()
</script>

<template>
  <header>
    <h2>{{ title }}</h2>
    <v-btn :aria-label="`Make one of ${title.toLowerCase()}`" @click="$emit('edit')">Make one</v-btn>
  </header>
  <p v-if="failed" class="muted">{{ failed }}</p>
  <p v-else-if="rows && !rows.length" class="muted">{{ what }}</p>
  <ul v-if="rows?.length" class="rows">
    <li v-for="one in rows" :key="one.id" :class="{ retired: one.retired }">
      <span>
        <b>{{ one.name }}</b> <slot :one="one" />
        <small v-if="one.used_in.length" class="muted">in {{ one.used_in.join(', ') }}</small>
      </span>
      <span class="acts">
        <v-btn class="quiet" :aria-label="`Change ${one.name}`" @click="$emit('edit', one)">Change</v-btn>
        <v-btn v-if="!one.retired" class="quiet" :aria-label="`Remove ${one.name}`" @click="$emit('remove', one)">
          Remove
        </v-btn>
      </span>
    </li>
  </ul>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s-12);
}
ul + header,
p + header {
  margin-top: var(--s-20);
}
h2,
p {
  margin: 0;
}
small {
  display: block;
  font-size: var(--t-xs);
}
.retired b {
  text-decoration: line-through;
}
</style>
