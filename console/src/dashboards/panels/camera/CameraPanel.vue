<script setup lang="ts">
import { t } from "@/language";
import { useCamera } from "@/cameras/cameras";
import { age, now } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import type { ViewProps } from "../view";

/** The newest picture of a camera, with its age; where it fails, the last one stays with what is wrong. */
const { panel } = defineProps<ViewProps<"camera">>();
const { source, takenAt, error } = useCamera(() => panel.cameraId);
</script>

<template>
  <div class="camera">
    <ProblemNote :error="error" />
    <p v-if="!panel.cameraId" class="soft">{{ t("No camera is chosen.") }}</p>
    <img v-if="source" :src="source" :class="{ old: error }" :alt="panel.title || t('Picture of the camera')" />
    <p v-if="takenAt" class="soft small">{{ t("Taken {age}", { age: age(takenAt, now) }) }}</p>
    <p v-else-if="panel.cameraId && !error" class="soft">{{ t("Fetching the picture …") }}</p>
  </div>
</template>

<style scoped>
.camera {
  display: flex;
  flex-direction: column;
  gap: 0.35rem;
  height: 100%;
  min-height: 0;
}
img {
  flex: 0 1 auto;
  min-height: 0;
  width: 100%;
  object-fit: contain;
  object-position: left top;
}
.old {
  opacity: 0.45;
}
p {
  margin: 0;
}
</style>
