<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Frame } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, ref } from "vue";
import FrameCard from "./FrameCard.vue";

/** Frames and messages as they come, the newest first. Pausing keeps the list still while it is read; nothing is lost meanwhile. */
const KEPT = 200;
const paused = ref(false);
const refusedOnly = ref(false);
const search = ref("");
const waiting = ref<Frame[]>([]);
const { data: frames, error, load } = useLoad(() => api.get<Frame[]>("frames?limit=100"));
/** The newer ones first; a frame that was loaded and comes by the stream too stands once. */
function merged(newer: Frame[]): Frame[] {
  const ids = new Set(newer.map((frame) => frame.id));
  return [...newer, ...(frames.value ?? []).filter((frame) => !ids.has(frame.id))].slice(0, KEPT);
}

onLive<Frame>("frame", (frame) => {
  if (paused.value) {
    waiting.value = [frame, ...waiting.value].slice(0, KEPT);
  } else {
    frames.value = merged([frame]);
  }
});
onLive("resync", load);

function goOn() {
  paused.value = false;
  frames.value = merged(waiting.value);
  waiting.value = [];
}

const shown = computed(() =>
  frames.value?.filter(
    (frame) =>
      (!refusedOnly.value || frame.outcome === "refused") &&
      [
        frame.deviceName,
        frame.address,
        frame.kind,
        frame.reason,
        frame.bytes,
        frame.payload,
        frame.text,
        frame.inletName,
        ...frame.heard.map((one) => one.gatewayName),
      ].some((text) => text?.toLowerCase().includes(search.value.toLowerCase())),
  ),
);
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Incoming messages") }}</h2>
      <el-input
        v-model="search"
        :aria-label="t('Search')"
        :placeholder="t('device, gateway, inlet, text, hex …')"
        style="width: 14rem"
        clearable
      />
      <el-checkbox v-model="refusedOnly">{{ t("refused only") }}</el-checkbox>
      <el-button v-if="!paused" @click="paused = true">{{ t("Hold still") }}</el-button>
      <el-button v-else type="primary" @click="goOn">{{
        t("Go on ({waiting} new)", { waiting: waiting.length })
      }}</el-button>
    </div>
    <ProblemNote :error="error" />
    <FrameCard v-for="frame in shown" :key="frame.id" :frame="frame" />
    <EmptyState v-if="shown?.length === 0" :title="t('No frames')">{{
      t("Whatever gateways and inlets bring is listed here, also what was refused and why.")
    }}</EmptyState>
  </section>
</template>
