<script setup lang="ts">
import { t } from "@/language";
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
    :title="t('What changes')"
    wide
    :save-label="t('Change {n} point | Change {n} points', { n: changed.length })"
    :busy="busy"
    :error="error"
    :disabled="refused.length > 0 || !changed.length"
    @save="emit('save')"
    @close="emit('close')"
  >
    <div v-if="refused.length" class="refused" role="alert">
      <strong>{{ t("{n} row cannot be changed | {n} rows cannot be changed", { n: refused.length }) }}</strong>
      <ul>
        <li v-for="row in refused.slice(0, MOST)" :key="row.id">{{ row.name }}: {{ row.problem }}</li>
      </ul>
    </div>
    <p v-if="!cells.length && !refused.length" class="soft">{{ t("Nothing changes.") }}</p>
    <table v-if="cells.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Point") }}</th>
          <th>{{ t("What") }}</th>
          <th>{{ t("Is") }}</th>
          <th>{{ t("Becomes") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="cell in cells.slice(0, MOST)" :key="cell.name + cell.field">
          <td>{{ cell.name }}</td>
          <td>{{ TITLES[cell.field] }}</td>
          <td class="soft">{{ cell.before || t("empty") }}</td>
          <td>{{ cell.after || t("empty") }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="cells.length > MOST" class="soft">{{ t("and {count} more cells", { count: cells.length - MOST }) }}</p>
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
