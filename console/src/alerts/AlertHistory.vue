<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useFilters } from "@/look/filters";
import HistoryFilters from "@/events/HistoryFilters.vue";
import { usePages } from "@/look/pages";
import ProblemNote from "@/look/ProblemNote.vue";
import AlertRows from "./AlertRows.vue";

/** Everything that was an alert, filtered by the service; its address leads back to the same view. */
const PAGE = 50;
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
    <HistoryFilters v-model="filter" :exported="`/api/v1/alerts/export?${asked}`" />
    <ProblemNote :error="error" />
    <AlertRows v-if="found?.length" :alerts="found" />
    <EmptyState v-else-if="found && !error && filtered" :title="t('No alerts match')">{{
      t("Remove a filter to see more.")
    }}</EmptyState>
    <EmptyState v-else-if="found && !error" :title="t('No alerts yet')">{{
      t("Each alert is listed here with the times of its steps.")
    }}</EmptyState>
    <p v-if="more" class="more">
      <el-button :loading="busy" @click="load(true)">{{ t("Show older ones") }}</el-button>
    </p>
  </section>
</template>

<style scoped>
.more {
  text-align: center;
}
</style>
