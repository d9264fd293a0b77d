<script setup lang="ts">
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { usePages } from "@/look/pages";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import AlertRows from "./AlertRows.vue";

/** Everything that was an alert, filtered by the service; its address leads back to the same view. */
const PAGE = 50;
const route = useRoute();
const router = useRouter();
const places = usePlaces();
const text = (name: string) => String(route.query[name] ?? "");
const filter = reactive({
  text: text("text"),
  severity: text("severity"),
  place: text("place"),
  person: text("person"),
  since: text("since"),
  until: text("until"),
});
const query = computed(() => Object.fromEntries(Object.entries(filter).filter(([, value]) => value)));
const address = computed(() => {
  const asked = new URLSearchParams(query.value);
  if (filter.since) {
    asked.set("since", new Date(filter.since + "T00:00:00").toISOString());
  }
  if (filter.until) {
    const end = new Date(filter.until + "T00:00:00");
    end.setDate(end.getDate() + 1);
    asked.set("until", end.toISOString());
  }
  return asked.toString();
});

const {
  items: found,
  more,
  busy,
  error,
  load,
} = usePages<Alert>(PAGE, (after) =>
  api.get<Alert[]>(`alerts?state=all&limit=${PAGE}&${address.value}${after ? "&after=" + after.id : ""}`),
);

let waiting: ReturnType<typeof setTimeout> | undefined;
watch(query, (next) => {
  clearTimeout(waiting);
  waiting = setTimeout(() => {
    void router.replace({ query: next });
    void load();
  }, 300);
});
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
      <el-input v-model="filter.since" type="date" aria-label="From"><template #prefix>From</template></el-input>
      <el-input v-model="filter.until" type="date" aria-label="To"><template #prefix>To</template></el-input>
      <a class="el-button" :href="`/api/v1/alerts/export?${address}`" download>Export CSV</a>
    </div>
    <ProblemNote :error="error" />
    <AlertRows v-if="found?.length" :alerts="found" />
    <EmptyState v-else-if="found && !error && Object.keys(query).length" title="No alerts match"
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
</style>
