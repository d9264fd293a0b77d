<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Device, DeviceModel } from "@/api/types";
import CommandSheet from "@/devices/CommandSheet.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed } from "vue";
import type { ViewProps } from "../view";

/** Radio devices that feed the selected points: what they can be told, for who may operate them. */
const { points, open } = defineProps<ViewProps<"control">>();
const { data, error, load } = useLoad(async () =>
  open
    ? { devices: [], models: [] }
    : { devices: await api.get<Device[]>("devices"), models: await api.get<DeviceModel[]>("models") },
);
onChanged(["registry"], load);
const told = computed(() => {
  const shown = new Set(points.map((point) => point.id));
  return (data.value?.devices ?? []).filter(
    (device) => device.devEui !== null && device.assignments.some((one) => shown.has(one.pointId)),
  );
});
const modelOf = (device: Device) => data.value?.models.find((model) => model.id === device.modelId);
</script>

<template>
  <ProblemNote :error="error" />
  <div v-for="device in told" :key="device.id" class="told">
    <h3>
      <RouterLink :to="'/fleet/devices/' + device.id">{{ device.name }}</RouterLink>
    </h3>
    <CommandSheet :device="device" :model="modelOf(device)" />
  </div>
  <p v-if="open" class="soft">{{ t("What devices are told is shown to people with an account.") }}</p>
  <p v-else-if="data && !told.length" class="soft">{{ t("No radio device feeds these points.") }}</p>
</template>

<style scoped>
h3 {
  margin: 0;
  font-size: 1rem;
}
.told :deep(.sheet) {
  border: 0;
  padding: 0;
}
.told :deep(h2) {
  display: none;
}
</style>
