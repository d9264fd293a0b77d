<script setup lang="ts">
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useFilters } from "@/look/filters";
import { usePages } from "@/look/pages";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import AlertRows from "./AlertRows.vue";

/** Everything that was an alert, filtered by the service; its address leads back to the same view. */
const PAGE = 50;
const places = usePlaces();
const {
  items: found,
  more,
  busy,
  error,
  load,
} = usePages<Alert>(PAGE, (after) =>
  api.get<Alert[]>(`alerts?state=all&limit=${PAGE}&${asked.value}${after ? "&after=" + after.id : ""}`),
);

const { filter, asked, filtered } = useFilters(
  ["text", "severity", "place", "person", "since", "until"],
  () => void load(),
  { tab: "history" },
);
onLive("alert", () => {
  if ((found.value?.length ?? 0) <= PAGE) {
    void load();
  }
});
onLive("resync", () => void load());
void load();
</script>

<template>
  <section class="sheet">
    <div class="filters">
      <el-input v-model="filter.text" placeholder="Text" aria-label="Text" clearable />
      <el-select v-model="filter.severity" placeholder="Any severity" aria-label="Severity" clearable>
        <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
      </el-select>
      <el-select v-model="filter.place" placeholder="Anywhere" aria-label="Place" filterable clearable>
        <el-option v-for="one in places.places" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
      <el-input v-model="filter.person" placeholder="Person" aria-label="Person" clearable />
      <el-input v-model="filter.since" type="date" aria-label="From"><template #prefix>From&nbsp;</template></el-input>
      <el-input v-model="filter.until" type="date" aria-label="To"><template #prefix>To&nbsp;</template></el-input>
      <a class="el-button" :href="`/api/v1/alerts/export?${asked}`" download>Export CSV</a>
    </div>
    <ProblemNote :error="error" />
    <AlertRows v-if="found?.length" :alerts="found" />
    <EmptyState v-else-if="found && !error && filtered" title="No alerts match"
      >Remove a filter to see more.</EmptyState
    >
    <EmptyState v-else-if="found && !error" title="No alerts yet"
      >Each alert is listed here with the times of its steps.</EmptyState
    >
    <p v-if="more" class="more"><el-button :loading="busy" @click="load(true)">Show older ones</el-button></p>
  </section>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 0.5rem;
  margin-bottom: 0.75rem;
}
.more {
  text-align: center;
}
@media (max-width: 640px) {
  .filters {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .filters > :has(input[type="date"]) {
    grid-column: span 2;
  }
}
</style>
