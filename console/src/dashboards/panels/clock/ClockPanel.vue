<script setup lang="ts">
import { now } from "@/look/clock";
import { format } from "@/look/format";
import { computed } from "vue";
import type { ViewProps } from "../view";

/** The time of day in a zone, which is named where it is not that of whoever looks. */
const { panel } = defineProps<ViewProps<"clock">>();
const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
const zone = computed(() => panel.zone ?? here);
const time = computed(() =>
  format({
    timeZone: zone.value,
    hour: "2-digit",
    minute: "2-digit",
    second: "2-digit",
    hourCycle: "h23",
  }).format(now.value),
);
const date = computed(() =>
  format({
    timeZone: zone.value,
    weekday: "long",
    day: "numeric",
    month: "long",
    year: "numeric",
  }).format(now.value),
);
</script>

<template>
  <p class="time">{{ time }}</p>
  <p class="soft">
    {{ date }}<template v-if="zone !== here">, {{ zone }}</template>
  </p>
</template>

<style scoped>
.time {
  font-size: 2rem;
  font-weight: 640;
  line-height: 1.1;
  margin: 0;
}
p {
  margin: 0;
}
</style>
