<script setup lang="ts">
import { t } from "@/language";
import type { DataHealth } from "@/api/types";
import { moment } from "@/look/clock";
import { CAUSES, findingWords } from "./findings";

/** What is wrong with the readings of a point, when, and what to look at. */
defineProps<{ health: DataHealth }>();
</script>

<template>
  <ul v-if="health.findings.length" class="findings">
    <li v-for="one in health.findings" :key="one.kind">
      {{ findingWords(one) }}
      <span class="soft small">
        {{
          one.times > 1
            ? t("{from} to {until}", { from: moment(one.from), until: moment(one.until) })
            : moment(one.from)
        }}. {{ CAUSES[one.kind] }}
      </span>
    </li>
  </ul>
  <span v-else class="soft">{{ health.readings ? t("nothing wrong") : t("no readings") }}</span>
</template>

<style scoped>
.findings {
  margin: 0;
  padding-left: 1.1rem;
}
</style>
