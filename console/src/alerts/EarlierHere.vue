<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import { usePlaces } from "@/places/places";
import { useLogbook } from "@/logbook/logbook";
import LogbookSheet from "@/logbook/LogbookSheet.vue";
import { computed, watch } from "vue";

/** The last alerts of the same place with what was written about them, and the place's logbook. */
const { alert } = defineProps<{ alert: Alert }>();
const places = usePlaces();
const past = useLoad(() => api.get<Alert[]>(`alerts?state=all&limit=6&place=${alert.placeId}`));
watch(() => alert.placeId, past.load);
onLive("alert", past.load);
const others = computed(() => (past.data.value ?? []).filter((one) => one.id !== alert.id).slice(0, 5));
const logbook = useLogbook(() => "limit=20&place=" + alert.placeId);
</script>

<template>
  <section v-if="others.length" class="sheet">
    <h2>{{ t("Earlier alerts here") }}</h2>
    <ul>
      <li v-for="one in others" :key="one.id">
        <span class="soft">{{ moment(one.raisedAt, places.zoneOf(one.placeId)) }}</span>
        <div>
          <RouterLink :to="`/alerts/${one.id}`">{{ one.summary }}</RouterLink>
          <p v-for="(note, i) in one.notes" :key="i" class="note">{{ note.person }}: {{ note.text }}</p>
        </div>
      </li>
    </ul>
  </section>
  <LogbookSheet
    :entries="logbook.data.value"
    :problem="logbook.error.value"
    :place-id="alert.placeId"
    @changed="logbook.load"
  />
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: 0.75rem;
  padding: 0.25rem 0;
}
.note {
  margin: 0;
  white-space: pre-line;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
