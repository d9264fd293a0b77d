<script setup lang="ts">
import { play, soundBlocked, soundFrom } from "@/alerts/sound";
import SeverityFrom from "./SeverityFrom.vue";

/** Whether this browser sounds for alerts, as a control room wants it. */
</script>

<template>
  <section class="sheet">
    <h2>Sound in this browser</h2>
    <p class="soft">
      While a page is open here, it sounds every 15 seconds for alerts that nobody has acknowledged, until somebody does
      or presses <em>Silence here</em>. For a control room; it is kept in this browser only.
    </p>
    <div class="row">
      <SeverityFrom v-model="soundFrom" label="Sound for alerts" class="level" />
      <el-button @click="play('critical')">Hear it</el-button>
    </div>
    <p v-if="soundBlocked" class="tried-failed" role="status">
      This browser plays no sound. Check its settings for this page, and the volume.
    </p>
  </section>
</template>

<style scoped>
.level {
  width: 15rem;
}
</style>
