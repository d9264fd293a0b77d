<script setup lang="ts">
import { t } from "@/language";
import type { TimeRange } from "@/chart/timeRange";
import { exportOf, FORMATS } from "./exports";

/** Downloads what a chart shows: its readings in several formats, or a picture of it. */
const { points, range } = defineProps<{ points: string[]; range: () => TimeRange }>();
const emit = defineEmits<{ picture: [format: "png" | "svg"] }>();
</script>

<template>
  <el-dropdown trigger="click">
    <el-button>{{ t("Export …") }}</el-button>
    <template #dropdown>
      <el-dropdown-menu>
        <el-dropdown-item v-for="(name, format) in FORMATS" :key="format"
          ><a class="plain" :href="exportOf(points, range(), format)" download>{{ name }}</a></el-dropdown-item
        >
        <el-dropdown-item @click="emit('picture', 'png')">{{ t("Picture (PNG)") }}</el-dropdown-item>
        <el-dropdown-item @click="emit('picture', 'svg')">{{ t("Drawing (SVG)") }}</el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>

<style scoped>
.plain {
  color: inherit;
  text-decoration: none;
}
</style>
