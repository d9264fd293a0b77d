<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import type { DataHealth } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import FindingList from "./FindingList.vue";
import { length } from "./findings";

/** Points whose readings cannot be relied upon, those with the most to look at first. */
const places = usePlaces();
const days = ref(7);
const place = ref("all");
const every = ref(false);
const found = useRefreshed(
  () =>
    api.get<DataHealth[]>(
      `data-health?days=${days.value}&all=${every.value}${place.value === "all" ? "" : "&place=" + place.value}`,
    ),
  [days, place, every],
  600,
);
const sites = computed(() => places.places.filter((one) => one.kind === "site"));
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Data health") }}</h2>
      <el-select v-if="sites.length > 1" v-model="place" :aria-label="t('Site')" class="site">
        <el-option value="all" :label="t('All sites')" />
        <el-option v-for="one in sites" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
      <el-radio-group v-model="days" :aria-label="t('Period')">
        <el-radio-button :value="1">{{ t("1 day") }}</el-radio-button>
        <el-radio-button :value="7">{{ t("1 week") }}</el-radio-button>
        <el-radio-button :value="31">{{ t("1 month") }}</el-radio-button>
      </el-radio-group>
      <el-checkbox v-model="every">{{ t("all points") }}</el-checkbox>
    </div>
    <ProblemNote :error="found.error.value" />
    <p v-if="found.loading.value" class="soft">{{ t("Readings are examined …") }}</p>
    <table v-if="found.data.value?.length" class="rows cards">
      <thead>
        <tr>
          <th scope="col">{{ t("Point") }}</th>
          <th scope="col">{{ t("Device") }}</th>
          <th scope="col">{{ t("Interval") }}</th>
          <th scope="col">{{ t("Covered") }}</th>
          <th scope="col">{{ t("Findings") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in found.data.value" :key="one.pointId">
          <td class="wide">
            <RouterLink :to="`/points/${one.number}`">{{ one.name }}</RouterLink>
            <div class="soft small">{{ one.path.join(", ") }}</div>
          </td>
          <td>
            <RouterLink v-if="one.deviceId" :to="`/fleet/devices/${one.deviceId}`">{{ one.deviceName }}</RouterLink>
            <span v-else class="soft">–</span>
          </td>
          <td>{{ one.intervalSeconds ? t("every {length}", { length: length(one.intervalSeconds) }) : "–" }}</td>
          <td>
            {{ fixed(one.coveredPercent, one.coveredPercent > 99 ? 1 : 0) }} %
            <span class="soft small">{{ t("covered") }}</span>
          </td>
          <td class="wide"><FindingList :health="one" /></td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="!found.loading.value && !found.error.value" :title="t('Nothing wrong was found')">
      {{ t("No gaps, stuck values, spikes, jumps or impossible values in this period.") }}
    </EmptyState>
    <p class="soft small">
      {{
        t(
          "A gap is longer than three usual intervals. A value is stuck if it stays exactly the same for two hours though it usually moves. A spike or a jump is ten times as far as the point usually moves between two readings.",
        )
      }}
    </p>
  </section>
</template>

<style scoped>
.site {
  width: 14rem;
}
</style>
