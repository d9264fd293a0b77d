<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Device } from "@/api/types";
import { age, everySeen, now } from "@/look/clock";
import { useFound } from "@/look/find";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { useRowsInSight } from "@/look/rows";
import SpaceRow from "@/look/SpaceRow.vue";
import { usePlaces } from "@/places/places";
import { ref, useTemplateRef } from "vue";
import DeviceForm from "./DeviceForm.vue";
import ManyDevicesForm from "./ManyDevicesForm.vue";
import StateWord from "./StateWord.vue";
import { STATE_WORDS } from "./stateWords";

const places = usePlaces();
const adding = ref(false);
const many = ref(false);
const { data: devices, error, load } = useLoad(() => api.get<Device[]>("devices"));
onLive<Device>(
  "device",
  (device) => (devices.value = devices.value?.map((one) => (one.id === device.id ? device : one))),
);
onChanged(["registry"], load);
// What a device says comes by the stream; that one has become silent is seen here.
everySeen(60, () => void load());
const { text, found, isLong } = useFound(
  () => devices.value ?? [],
  (device) => [
    device.name,
    ...device.path,
    device.modelName,
    device.inletName ?? "",
    device.address ?? "",
    device.state,
    STATE_WORDS[device.state] ?? "",
  ],
);
const body = useTemplateRef<HTMLElement>("body");
const { shown, above, below, first, partly } = useRowsInSight(() => found.value, body);
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Devices") }}</h2>
      <RouterLink v-if="devices?.length" to="/fleet/labels">{{ t("Labels to print") }}</RouterLink>
      <el-button v-if="places.editable.length" @click="many = true">{{ t("Many at once …") }}</el-button>
      <el-button v-if="places.editable.length" type="primary" @click="adding = true">{{
        t("Bring a device in")
      }}</el-button>
    </div>
    <ProblemNote :error="error" />
    <el-input
      v-if="isLong"
      v-model="text"
      clearable
      class="find"
      :aria-label="t('Find a device')"
      :placeholder="t('Find a device')"
    />
    <p v-if="isLong && !found.length" class="soft">
      {{ t("No device has that in its name, place, model, address or state.") }}
    </p>
    <table v-else-if="devices?.length" class="rows cards" :class="{ steady: partly }" :aria-rowcount="found.length + 1">
      <thead>
        <tr>
          <th>{{ t("Device") }}</th>
          <th>{{ t("State") }}</th>
          <th>{{ t("Heard") }}</th>
          <th>{{ t("Signal") }}</th>
          <th class="num">{{ t("Counter") }}</th>
          <th class="num">{{ t("Lost") }}</th>
          <th class="num">{{ t("Battery") }}</th>
        </tr>
      </thead>
      <tbody ref="body">
        <SpaceRow :pixels="above" />
        <tr v-for="(device, i) in shown" :key="device.id" :aria-rowindex="first + i + 2">
          <td>
            <RouterLink :to="`/fleet/devices/${device.id}`">{{ device.name }}</RouterLink>
            <div class="soft small">
              {{ device.path.at(-1) }} · {{ device.modelName
              }}<template v-if="device.inletName">
                · {{ t("by {inletName}", { inletName: device.inletName }) }}</template
              >
            </div>
          </td>
          <td>
            <StateWord :state="device.state" />
            <div v-if="device.problem" class="small problem">{{ device.problem }}</div>
          </td>
          <td>{{ age(device.lastHeard, now) }}</td>
          <td class="small">
            <template v-if="device.rssiDbm !== null">{{
              t("{rssiDbm} dBm, SNR {snrDb} dB, {dataRate}", {
                rssiDbm: device.rssiDbm,
                snrDb: device.snrDb,
                dataRate: device.dataRate,
              })
            }}</template>
          </td>
          <td class="num hide">{{ device.counter ?? "" }}</td>
          <td class="num hide">{{ device.inletId ? "" : device.lost }}</td>
          <td class="num">
            <template v-if="device.batteryPercent !== null">{{ Math.round(device.batteryPercent) }} %</template>
            <template v-else-if="device.batteryVolts !== null">{{ fixed(device.batteryVolts, 2) }} V</template>
          </td>
        </tr>
        <SpaceRow :pixels="below" />
      </tbody>
    </table>
    <EmptyState v-else-if="devices" :title="t('No devices yet')">{{
      t(
        "Register a gateway first, then bring a device in with its EUI and key; or make an inlet, and admit who is heard at it.",
      )
    }}</EmptyState>
    <ManyDevicesForm v-if="many" @close="((many = false), load())" />
    <DeviceForm v-if="adding" @close="((adding = false), load())" />
  </section>
</template>

<style scoped>
.problem {
  max-width: 22rem;
  color: var(--warning);
}
</style>
