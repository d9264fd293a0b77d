<script setup lang="ts">
import { t } from "@/language";
import SoundBar from "@/alerts/SoundBar.vue";
import { connected } from "@/api/live";
import { keptSince } from "@/api/offline";
import { age, moment, now } from "@/look/clock";

/** What stands above any page: that nothing arrives, and what sounds. */
</script>

<template>
  <p v-if="keptSince" class="offline" role="status">
    {{
      t("No connection. What is shown was loaded {moment}, {age}. Trying again …", {
        moment: moment(keptSince),
        age: age(keptSince, now),
      })
    }}
  </p>
  <p v-else-if="!connected" class="offline" role="status">
    {{ t("No live connection: values may be old. Trying again …") }}
  </p>
  <SoundBar />
</template>

<style scoped>
.offline {
  margin: 0;
  padding: 0.4rem 1.25rem;
  background: var(--advisory-fill);
}
</style>
