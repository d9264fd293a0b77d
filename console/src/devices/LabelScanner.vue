<script setup lang="ts">
import { t } from "@/language";
import { onBeforeUnmount, onMounted, ref, useTemplateRef } from "vue";

/** Looks through the phone's camera for a QR code, and hands its text over. Browsers lend the camera to https only. */
const emit = defineEmits<{ found: [text: string]; close: [] }>();
const video = useTemplateRef("video");
const problem = ref("");
let stream: MediaStream | undefined;
let timer = 0;

onMounted(async () => {
  if (!navigator.mediaDevices?.getUserMedia) {
    problem.value = t(
      "This browser does not lend its camera to this page: open it by https, or type what the label says.",
    );
    return;
  }
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
  } catch {
    problem.value = t("The camera cannot be used: allow it for this page, or type what the label says.");
    return;
  }
  const { default: jsQR } = await import("jsqr");
  const canvas = document.createElement("canvas");
  const look = canvas.getContext("2d", { willReadFrequently: true });
  if (!video.value || !look) {
    return;
  }
  video.value.srcObject = stream;
  await video.value.play();
  timer = window.setInterval(() => {
    const seen = video.value;
    if (!seen?.videoWidth) {
      return;
    }
    canvas.width = seen.videoWidth;
    canvas.height = seen.videoHeight;
    look.drawImage(seen, 0, 0);
    const image = look.getImageData(0, 0, canvas.width, canvas.height);
    const code = jsQR(image.data, image.width, image.height);
    if (code?.data) {
      emit("found", code.data);
    }
  }, 200);
});

onBeforeUnmount(() => {
  window.clearInterval(timer);
  stream?.getTracks().forEach((track) => track.stop());
});
</script>

<template>
  <div class="scanner">
    <p v-if="problem" role="alert">{{ problem }}</p>
    <video v-else ref="video" playsinline muted :aria-label="t('Camera: hold it over the code on the label')"></video>
    <el-button @click="emit('close')">{{ t("Close the camera") }}</el-button>
  </div>
</template>

<style scoped>
.scanner {
  margin-bottom: 0.75rem;
}
video {
  width: 100%;
  max-height: 50vh;
  border-radius: var(--radius);
  background: #000;
}
</style>
