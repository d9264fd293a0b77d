<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { LoggedEvent } from "@/api/types";
import { moment } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import FenceMark from "@/look/FenceMark.vue";
import { useFilters } from "@/look/filters";
import { usePages } from "@/look/pages";
import { usePlaces } from "@/places/places";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed } from "vue";
import { EVERYTHING, KINDS, leadsTo, withKinds } from "./events";
import HistoryFilters from "./HistoryFilters.vue";

/** Everything that happened, the newest first, filtered by the service; its address leads back to the same view. */
const PAGE = 50;
const places = usePlaces();
const {
  items: found,
  more,
  busy,
  error,
  load,
} = usePages<LoggedEvent>(PAGE, (after) =>
  api.get<LoggedEvent[]>(`events?limit=${PAGE}&${query.value}${after ? "&after=" + after.id : ""}`),
);
const { filter, asked, filtered } = useFilters(
  ["text", "kind", "severity", "place", "person", "since", "until"],
  () => void load(),
  { tab: "events" },
);
const query = computed(() => withKinds(asked.value));
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
    <HistoryFilters v-model="filter" :exported="`/api/v1/events/export?${query}`">
      <el-select v-model="filter.kind" :placeholder="t('All but changes')" :aria-label="t('Kind')" clearable>
        <el-option v-for="(kind, id) in KINDS" :key="id" :value="id" :label="kind.plural" />
        <el-option :value="EVERYTHING" :label="t('everything')" />
      </el-select>
    </HistoryFilters>
    <ProblemNote :error="error" />
    <table v-if="found?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("When") }}</th>
          <th>{{ t("Kind") }}</th>
          <th>{{ t("What") }}</th>
          <th>{{ t("Where") }}</th>
          <th>{{ t("Who") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="event in found" :key="event.id">
          <td class="small when">{{ moment(event.at, places.zoneOf(event.placeId)) }}</td>
          <td>
            <FenceMark v-if="event.kind === 'alert' && event.severity" :severity="event.severity" />
            <span v-else class="soft">{{ KINDS[event.kind]?.name ?? event.kind }}</span>
          </td>
          <td class="wide">
            <RouterLink v-if="leadsTo(event)" :to="leadsTo(event) ?? ''">{{ event.title }}</RouterLink>
            <span v-else>{{ event.title }}</span>
            <div class="soft small text">
              {{ event.text }}
            </div>
          </td>
          <td class="small">
            <RouterLink v-if="event.placeId && event.path.length" :to="`/places/${event.placeId}`">{{
              event.path.at(-1)
            }}</RouterLink>
          </td>
          <td class="small">{{ event.person }}</td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="found && !error && filtered" :title="t('No events match')">{{
      t("Remove a filter to see more.")
    }}</EmptyState>
    <EmptyState v-else-if="found && !error" :title="t('No events yet')">{{
      t("Alerts, notes, messages, commands and changes are listed here as they happen.")
    }}</EmptyState>
    <p v-else-if="!error" class="soft">{{ t("Loading …") }}</p>
    <p v-if="more" class="more">
      <el-button :loading="busy" @click="load(true)">{{ t("Show older ones") }}</el-button>
    </p>
  </section>
</template>

<style scoped>
.when {
  white-space: nowrap;
}
.text {
  overflow-wrap: anywhere;
}
.more {
  text-align: center;
}
</style>
