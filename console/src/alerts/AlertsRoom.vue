<script setup lang="ts">
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import { computed, ref } from "vue";
import AlertCards from "./AlertCards.vue";
import AlertRows from "./AlertRows.vue";
import { useAlerts } from "./alerts";
import RulesList from "./RulesList.vue";
import ShelvesList from "./ShelvesList.vue";

const alerts = useAlerts();
const tab = ref("open");
const history = useLoad(() => api.get<Alert[]>("alerts?state=all"));
onLive("alert", history.load);
const sorted = computed(() => history.data.value ?? []);
</script>

<template>
  <div class="page">
    <header class="page-head"><h1>Alerts</h1></header>
    <el-tabs v-model="tab">
      <el-tab-pane name="open" :label="`Open (${alerts.open.length})`">
        <div class="stack">
          <AlertCards :alerts="alerts.open" />
          <div v-if="!alerts.open.length" class="sheet">
            <EmptyState title="No open alerts">Everything that is watched is within its limits.</EmptyState>
          </div>
        </div>
      </el-tab-pane>
      <el-tab-pane name="shelved" :label="`Shelved (${alerts.shelved.length})`" lazy><ShelvesList /></el-tab-pane>
      <el-tab-pane name="history" label="History">
        <section class="sheet">
          <AlertRows v-if="sorted.length" :alerts="sorted" />
          <EmptyState v-else title="No alerts yet">Each alert is listed here with the times of its steps.</EmptyState>
        </section>
      </el-tab-pane>
      <el-tab-pane name="rules" label="Rules"><RulesList /></el-tab-pane>
    </el-tabs>
  </div>
</template>
