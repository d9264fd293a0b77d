<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Device, Inlet } from "@/api/types";
import PollSheet from "@/inlets/PollSheet.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed } from "vue";
import type { ViewProps } from "../view";

/** Polled devices that feed the selected points: their state and, with the permission to operate, their interval and their settable values. */
const { points, open } = defineProps<ViewProps<"asked">>();
const pointIds = computed(() => points.map((point) => point.id));
const places = usePlaces();
const { data, error, load } = useLoad(async () =>
  open
    ? { devices: [], inlets: [] }
    : { devices: await api.get<Device[]>("devices"), inlets: await api.get<Inlet[]>("inlets") },
);
onChanged(["registry"], load);
const asked = computed(() =>
  (data.value?.inlets ?? []).flatMap((inlet) => {
    const devices = (data.value?.devices ?? []).filter(
      (device) =>
        inlet.id !== null &&
        device.inletId === inlet.id &&
        device.assignments.some((one) => pointIds.value.includes(one.pointId)),
    );
    return devices.length ? [{ inlet, devices }] : [];
  }),
);
</script>

<template>
  <ProblemNote :error="error" />
  <PollSheet
    v-for="{ inlet, devices } in asked"
    :key="inlet.id ?? ''"
    class="bare"
    :inlet-id="inlet.id ?? ''"
    :devices="devices.map((device) => device.id)"
    :may-operate="devices.every((device) => places.may('operate', device.placeId))"
    :can-let-go="inlet.kind === 'bacnet-ip'"
  />
  <p v-if="open" class="soft">{{ t("How devices are asked is shown to people with an account.") }}</p>
  <p v-else-if="data && !asked.length" class="soft">{{ t("No device that is asked feeds these points.") }}</p>
</template>

<style scoped>
.bare {
  border: 0;
  padding: 0;
}
.bare :deep(h2) {
  display: none;
}
</style>
