<script setup lang="ts">
import { t } from "@/language";
import EventList from "@/events/EventList.vue";
import EmptyState from "@/look/EmptyState.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";
import AlertCards from "./AlertCards.vue";
import AlertFigures from "./AlertFigures.vue";
import AlertHistory from "./AlertHistory.vue";
import { useAlerts } from "./alerts";
import RulesList from "./RulesList.vue";
import ShelvesList from "./ShelvesList.vue";
import { useRoute } from "vue-router";

const alerts = useAlerts();
const query = useRoute().query;
// An address with filters leads to what it filters.
const tab = ref(String(query.tab ?? (Object.keys(query).length ? "history" : "open")));
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Alerts") }}</h1>
    </header>
    <el-tabs v-model="tab">
      <el-tab-pane name="open" :label="alerts.loaded ? t('Open ({open})', { open: alerts.open.length }) : t('Open')">
        <div class="stack">
          <ProblemNote :error="alerts.problem" />
          <AlertCards :alerts="alerts.open" />
          <div v-if="alerts.loaded && !alerts.problem && !alerts.open.length" class="sheet">
            <EmptyState :title="t('No open alerts')">{{
              t("Everything that is watched is within its limits.")
            }}</EmptyState>
          </div>
        </div>
      </el-tab-pane>
      <el-tab-pane name="shelved" :label="t('Shelved ({shelved})', { shelved: alerts.shelved.length })" lazy
        ><ShelvesList
      /></el-tab-pane>
      <el-tab-pane name="history" :label="t('History')" lazy><AlertHistory /></el-tab-pane>
      <el-tab-pane name="events" :label="t('Events')" lazy><EventList /></el-tab-pane>
      <el-tab-pane name="figures" :label="t('Figures')" lazy><AlertFigures /></el-tab-pane>
      <el-tab-pane name="rules" :label="t('Rules')"><RulesList /></el-tab-pane>
    </el-tabs>
  </div>
</template>
