<script setup lang="ts">
import { computed } from "vue";
import { soundBlocked, useSound } from "./sound";

/** What sounds in this page, with a way to be quiet; nothing while nothing does. */
const { sounding, silence, sound } = useSound();
const words = computed(() =>
  sounding.value.length === 1
    ? sounding.value[0]!.summary
    : `${sounding.value.length} alerts that nobody has acknowledged`,
);
</script>

<template>
  <p v-if="sounding.length" class="sounding" role="status">
    <span v-if="soundBlocked">This browser plays no sound before you press something.</span>
    <span v-else>Sounding: {{ words }}</span>
    <el-button v-if="soundBlocked" size="small" @click="sound">Allow sound</el-button>
    <el-button size="small" @click="silence">Silence here</el-button>
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
