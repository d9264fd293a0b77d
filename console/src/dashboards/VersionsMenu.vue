<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { DashboardVersion } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { ref } from "vue";

/** What a dashboard was before. One that is chosen becomes the draft, to be looked at and saved. */
const { dashboard } = defineProps<{ dashboard: string }>();
const emit = defineEmits<{ take: [version: DashboardVersion] }>();
const versions = ref<DashboardVersion[]>();
const { error, run } = useAction();

/** Loaded when somebody asks, since few do. */
async function load(shown: boolean) {
  if (shown) {
    await run(async () => (versions.value = await api.get<DashboardVersion[]>(`dashboards/${dashboard}/versions`)));
  }
}
</script>

<template>
  <el-dropdown trigger="click" max-height="24rem" @visible-change="load" @command="emit('take', $event)">
    <el-button>{{ t("Earlier versions") }}</el-button>
    <template #dropdown>
      <el-dropdown-menu>
        <el-dropdown-item v-for="one in versions" :key="one.version" :command="one">
          {{ moment(one.savedAt) }}, {{ one.savedBy || t("the service") }}:
          {{ t("{n} panel | {n} panels", { n: one.panels.length }) }}
        </el-dropdown-item>
        <el-dropdown-item v-if="error" disabled>{{ t("The earlier versions could not be loaded.") }}</el-dropdown-item>
        <el-dropdown-item v-else-if="versions && !versions.length" disabled>{{
          t("It has never been changed.")
        }}</el-dropdown-item>
        <el-dropdown-item v-else-if="!versions" disabled>{{ t("Loading …") }}</el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>
