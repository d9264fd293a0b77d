<script setup lang="ts">
import { t } from "@/language";
import { play, soundBlocked, soundFrom } from "@/alerts/sound";
import SeverityFrom from "./SeverityFrom.vue";

/** Whether this browser sounds for alerts, as a control room wants it. */
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Sound in this browser") }}</h2>
    <p class="soft">
      {{
        t(
          "While a page is open here, it sounds every 15 seconds for alerts that nobody has acknowledged, until somebody does or presses",
        )
      }}
      <em>{{ t("Silence here") }}</em>{{ t(". For a control room; it is kept in this browser only.") }}
    </p>
    <div class="row">
      <SeverityFrom v-model="soundFrom" :label="t('Sound for alerts')" class="level" />
      <el-button @click="play('critical')">{{ t("Hear it") }}</el-button>
    </div>
    <p v-if="soundBlocked" class="tried-failed" role="status">
      {{ t("This browser plays no sound. Check its settings for this page, and the volume.") }}
    </p>
  </section>
</template>

<style scoped>
.level {
  width: 15rem;
}
</style>
