<script setup lang="ts">
import { t } from "@/language";
import ProblemNote from "@/look/ProblemNote.vue";
import PlanPicture from "@/plans/PlanPicture.vue";
import { usePlan } from "@/plans/plans";
import { usePoints } from "@/points/points";
import { computed } from "vue";
import type { ViewProps } from "../view";

/** The picture of a place with the newest values where they are measured. */
const { panel, points, open } = defineProps<ViewProps<"plan">>();
const { data: plan, error, source } = usePlan(() => panel.selection?.placeId);
/** Without an account it is fetched again and again instead. */
const severities = computed(() => (open ? undefined : usePoints().severities));
const byId = computed(() => new Map(points.map((point) => [point.id, point])));
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!panel.selection" class="soft">{{ t("No place is chosen. Choose one with a picture.") }}</p>
  <div v-else-if="plan" class="frame">
    <PlanPicture :plan="plan" :source="source(plan)" :points="byId" :severities="severities" :open="open" />
  </div>
</template>

<style scoped>
.frame {
  height: 100%;
  min-height: 0;
  container-type: size;
}
/* As large as its panel lets it be, with marks where they belong. */
.frame :deep(.picture) {
  width: min(100cqw, calc(100cqh * var(--ratio)));
}
</style>
