<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { DashboardSummary } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { ref } from "vue";
import NewDashboardForm from "./NewDashboardForm.vue";
import WallForm from "./WallForm.vue";

const places = usePlaces();
const making = ref(false);
const hanging = ref(false);
const { data: dashboards, error, load } = useLoad(() => api.get<DashboardSummary[]>("dashboards"));
onChanged(["registry"], load);
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Dashboards") }}</h1>
      <RouterLink to="/records/compare">{{ t("Compare points") }}</RouterLink>
      <RouterLink to="/packs">{{ t("Packs") }}</RouterLink>
      <el-button v-if="dashboards?.length" @click="hanging = true">{{ t("Wall screen") }}</el-button>
      <el-button type="primary" @click="making = true">{{ t("Make a dashboard") }}</el-button>
    </header>
    <ProblemNote :error="error" />
    <section class="list">
      <RouterLink v-for="one in dashboards" :key="one.id" class="sheet" :to="`/dashboards/${one.id}`">
        <strong>{{ one.name }}</strong>
        <span class="soft small">{{
          t("{panels} panels · {whose}{seenBy}", {
            panels: one.panels,
            whose: one.mine ? t("mine") : t("shared with me"),
            seenBy: one.siteId
              ? t(", seen by {place}", { place: places.byId.get(one.siteId)?.name ?? t("a site") })
              : "",
          })
        }}</span>
      </RouterLink>
    </section>
    <section v-if="dashboards && !dashboards.length" class="sheet">
      <EmptyState :title="t('No dashboards yet')">{{
        t("Each place and point has its own page already. A dashboard puts together what belongs together for you.")
      }}</EmptyState>
    </section>
    <NewDashboardForm v-if="making" @close="making = false" />
    <WallForm v-if="hanging && dashboards" :dashboards="dashboards" @close="hanging = false" />
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 0.75rem;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
}
.list .sheet {
  display: grid;
  gap: 0.2rem;
  color: inherit;
  text-decoration: none;
}
.list .sheet:hover strong {
  text-decoration: underline;
}
</style>
