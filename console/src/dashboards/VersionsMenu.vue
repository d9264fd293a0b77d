<script setup lang="ts">
import { api } from "@/api/http";
import type { DashboardVersion } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { plural } from "@/look/words";
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
    <el-button>Earlier versions</el-button>
    <template #dropdown>
      <el-dropdown-menu>
        <el-dropdown-item v-for="one in versions" :key="one.version" :command="one">
          {{ moment(one.savedAt) }}, {{ one.savedBy || "the service" }}: {{ plural(one.panels.length, "panel") }}
        </el-dropdown-item>
        <el-dropdown-item v-if="error" disabled>The earlier versions could not be loaded.</el-dropdown-item>
        <el-dropdown-item v-else-if="versions && !versions.length" disabled
          >It has never been changed.</el-dropdown-item
        >
        <el-dropdown-item v-else-if="!versions" disabled>Loading …</el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>
