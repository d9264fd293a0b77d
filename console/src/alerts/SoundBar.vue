<script setup lang="ts">
import { t } from "@/language";
import { computed } from "vue";
import { soundBlocked, useSound } from "./sound";

/** What sounds in this page, with a way to be quiet; nothing while nothing does. */
const { sounding, silence, sound } = useSound();
const words = computed(() =>
  sounding.value.length === 1
    ? sounding.value[0]!.summary
    : t("{value} alerts that nobody has acknowledged", { value: sounding.value.length }),
);
</script>

<template>
  <p v-if="sounding.length" class="sounding" role="status">
    <span v-if="soundBlocked">{{ t("This browser plays no sound before you press something.") }}</span>
    <span v-else>{{ t("Sounding: {words}", { words }) }}</span>
    <el-button v-if="soundBlocked" size="small" @click="sound">{{ t("Allow sound") }}</el-button>
    <el-button size="small" @click="silence">{{ t("Silence here") }}</el-button>
  </p>
</template>

<style scoped>
.sounding {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.9rem;
  margin: 0;
  padding: 0.4rem 1.25rem;
  background: var(--warning-fill);
}
.sounding > span {
  flex: 1 1 14rem;
}
</style>
