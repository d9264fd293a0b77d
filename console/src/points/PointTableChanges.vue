<script setup lang="ts">
import type { PointRowView } from "@/api/types";
import FormDialog from "@/look/FormDialog.vue";
import { computed } from "vue";
import { TITLES } from "./table";

/** What would become of the rows of a table, before it does. */
const { rows } = defineProps<{ rows: PointRowView[]; busy: boolean; error?: unknown }>();
const emit = defineEmits<{ save: []; close: [] }>();
const MOST = 200;
const refused = computed(() => rows.filter((row) => row.problem));
const changed = computed(() => rows.filter((row) => row.changed.length && !row.problem));
const cells = computed(() => changed.value.flatMap((row) => row.changed.map((cell) => ({ ...cell, name: row.name }))));
</script>

<template>
  <FormDialog
    title="What changes"
    wide
    :save-label="`Change ${changed.length} ${changed.length === 1 ? 'point' : 'points'}`"
    :busy="busy"
    :error="error"
    :disabled="refused.length > 0 || !changed.length"
    @save="emit('save')"
    @close="emit('close')"
  >
    <div v-if="refused.length" class="refused" role="alert">
      <strong>{{ refused.length }} {{ refused.length === 1 ? "row" : "rows" }} cannot be changed</strong>
      <ul>
        <li v-for="row in refused.slice(0, MOST)" :key="row.id">{{ row.name }}: {{ row.problem }}</li>
      </ul>
    </div>
    <p v-if="!cells.length && !refused.length" class="soft">Nothing changes.</p>
    <table v-if="cells.length" class="rows cards">
      <thead>
        <tr>
          <th>Point</th>
          <th>What</th>
          <th>Is</th>
          <th>Becomes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="cell in cells.slice(0, MOST)" :key="cell.name + cell.field">
          <td>{{ cell.name }}</td>
          <td>{{ TITLES[cell.field] }}</td>
          <td class="soft">{{ cell.before || "empty" }}</td>
          <td>{{ cell.after || "empty" }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="cells.length > MOST" class="soft">and {{ cells.length - MOST }} more cells</p>
  </FormDialog>
</template>

<style scoped>
.refused {
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--critical);
  background: var(--critical-fill);
  border-radius: 3px;
}
.refused ul {
  margin: 0.3rem 0 0;
  padding-left: 1.2rem;
}
</style>
