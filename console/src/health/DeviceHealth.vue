<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import type { DataHealth, Device } from "@/api/types";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { watch } from "vue";
import FindingList from "./FindingList.vue";

/** What was wrong with the readings of a device in the last week; shown only if something was. */
const { device } = defineProps<{ device: Device }>();
const found = useLoad(() => api.get<DataHealth[]>(`data-health?all=false&device=${device.id}`));
watch(() => device.id, found.load);
</script>

<template>
  <section v-if="found.error.value || found.data.value?.length" class="sheet">
    <h2>{{ t("Data health, last week") }}</h2>
    <ProblemNote :error="found.error.value" />
    <div v-for="one in found.data.value" :key="one.pointId">
      <RouterLink :to="`/points/${one.number}`">{{ one.name }}</RouterLink>
      <span class="soft small">
        {{ t("{coveredPercent} % covered", { coveredPercent: fixed(one.coveredPercent, 0) }) }}</span
      >
      <FindingList :health="one" />
    </div>
  </section>
</template>
