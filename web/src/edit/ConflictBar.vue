<script setup lang="ts">
/** Another window changed the same document: both versions are offered, and neither is lost before the choice. */
defineProps<{ what: string; differences: { field: string; mine: string; theirs: string }[] }>()
defineEmits<{ mine: []; theirs: [] }>()
</script>

<template>
  <section class="conflict plate" role="alertdialog" aria-label="Changed in another window">
    <h2>This {{ what }} was changed in another window</h2>
    <table>
      <thead>
        <tr>
          <th scope="col">What differs</th>
          <th scope="col">Here, as you typed it</th>
          <th scope="col">In the other window, saved</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in differences" :key="row.field">
          <th scope="row">{{ row.field }}</th>
          <td>{{ row.mine }}</td>
          <td>{{ row.theirs }}</td>
        </tr>
      </tbody>
    </table>
    <div class="ways">
      <v-btn class="solid" @click="$emit('mine')">Keep mine</v-btn>
      <v-btn @click="$emit('theirs')">Take the other</v-btn>
    </div>
  </section>
</template>

<style scoped>
.conflict {
  padding: var(--s-20) var(--s-24);
  margin-bottom: var(--s-16);
  border-color: var(--caution);
}
h2 {
  font-size: var(--t-xl);
}
table {
  border-collapse: collapse;
  margin: var(--s-10) 0 var(--s-14);
  font-size: var(--t-s);
  width: 100%;
}
th,
td {
  text-align: left;
  padding: var(--s-6) var(--s-14) var(--s-6) 0;
  border-top: 1px solid var(--line);
  font-weight: 400;
}
thead th {
  color: var(--muted);
  border: 0;
}
tbody th {
  font-weight: 600;
}
.ways {
  display: flex;
  gap: var(--s-10);
}
</style>
