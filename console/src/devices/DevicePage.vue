<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Device, DeviceModel, Frame } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, moment, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import StarButton from "@/starred/StarButton.vue";
import ReadingValue from "@/look/ReadingValue.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import AssignForm from "./AssignForm.vue";
import CalibrateForm from "./CalibrateForm.vue";
import CommandSheet from "./CommandSheet.vue";
import CommissioningSheet from "./CommissioningSheet.vue";
import DecodeAgainForm from "./DecodeAgainForm.vue";
import DeviceChangeForm from "./DeviceChangeForm.vue";
import DeviceHealth from "@/health/DeviceHealth.vue";
import FrameCard from "@/frames/FrameCard.vue";
import { modeLasts } from "./power";
import SignalSheet from "@/gateways/SignalSheet.vue";
import StateWord from "./StateWord.vue";

/** The page of a device: how it is, what its channels feed, its newest frames. */
const { id } = defineProps<{ id: string }>();
const places = usePlaces();
const points = usePoints();
const router = useRouter();
const channel = ref("");
const calibrating = ref<{ name: string; title: string }>();
const removing = ref(false);
const changing = ref(false);
const again = ref(false);
/** Until a device is in, its way in is what matters most. */
const arrived = ref(false);
const { busy, error, run } = useAction();
const { data: device, error: problem, load } = useLoad(() => api.get<Device>("devices/" + id));
const models = useLoad(() => api.get<DeviceModel[]>("models"));
const frames = useLoad(() => api.get<Frame[]>(`frames?device=${id}&limit=20`));
watch(
  () => id,
  () => ((arrived.value = false), load(), frames.load()),
);
onLive<Device>("device", (changed) => changed.id === id && (device.value = changed));
onLive<Frame>(
  "frame",
  (frame) => frame.deviceId === id && (frames.data.value = [frame, ...(frames.data.value ?? [])].slice(0, 20)),
);
onChanged(["registry"], load);
every(30, () => void load());

const model = computed(() => models.data.value?.find((one) => one.id === device.value?.modelId));
const isRadio = computed(() => device.value?.activation !== "inlet");
const mayEdit = computed(() => places.may("edit", device.value?.placeId ?? null));
const channels = computed(
  () =>
    model.value?.channels.map((one) => {
      const assignment = device.value?.assignments.find((each) => each.channel === one.name);
      return { ...one, assignment, point: points.byId.get(assignment?.pointId ?? "") };
    }) ?? [],
);
const unreleased = computed(() => channels.value.filter((one) => one.point && !one.point.released));

async function releaseAll() {
  await run(async () => {
    for (const one of unreleased.value) {
      await api.post(`points/${one.point?.id}/release`);
    }
    await points.load();
  }, t("Released: others see these points now."));
}

const ahead = computed(() => {
  const seconds = device.value?.clockAheadSeconds ?? 0;
  return seconds >= 7200
    ? `${Math.round(seconds / 3600)} h`
    : seconds >= 120
      ? t("{minutes} min", { minutes: Math.round(seconds / 60) })
      : `${seconds} s`;
});

async function correctClock() {
  const correct = !device.value?.clockCorrected;
  await run(
    () => api.put(`devices/${id}/clock`, { correct }),
    correct
      ? t("Times of this device are corrected from now on.")
      : t("Times of this device are kept as it sends them."),
  );
  await load();
}

async function remove() {
  if (
    await run(
      () => api.remove("devices/" + id),
      t("{name} is removed; the history of its points stays.", { name: device.value?.name }),
    )
  ) {
    await router.push("/fleet/devices");
  }
}
</script>

<template>
  <div v-if="device" class="page">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/fleet/devices">{{ t("Devices") }}</RouterLink> / {{ device.modelName }}
        </p>
        <h1>{{ device.name }}</h1>
        <p class="row">
          <StateWord :state="device.state" /> <span class="soft">{{ said(device.stateReason) }}</span>
        </p>
      </div>
      <StarButton :page="{ kind: 'device', of: device.id }" />
      <template v-if="mayEdit">
        <el-button @click="changing = true">{{ t("Change …") }}</el-button>
        <el-button @click="again = true">{{ t("Read frames again …") }}</el-button>
        <el-button @click="removing = true">{{ t("Remove …") }}</el-button>
      </template>
    </header>
    <ProblemNote :error="error" />

    <p v-if="device.configuringSince" role="alert" class="sheet configuring">
      {{
        t("It is in its configuration mode since {moment}, which drains its battery. {modeLasts}", {
          moment: moment(device.configuringSince),
          modeLasts: modeLasts(model),
        })
      }}
    </p>

    <div v-if="device.clockCorrected || device.clockAheadSeconds" class="sheet configuring" role="status">
      <p>
        <template v-if="device.clockAheadSeconds"
          >{{
            t("The clock of this device is {ahead} ahead. Readings from the future are kept as of their arrival.", {
              ahead,
            })
          }}
        </template>
        <template v-if="device.clockCorrected">
          {{ t("The times that it sends are corrected: the newest reading of each message counts as now.") }}
        </template>
      </p>
      <el-button v-if="mayEdit" :loading="busy" @click="correctClock">{{
        device.clockCorrected ? t("Stop correcting times") : t("Correct its times")
      }}</el-button>
    </div>

    <CommissioningSheet v-if="!arrived" :device="device" @done="arrived = true" />

    <section class="sheet facts">
      <dl class="facts">
        <div>
          <dt>{{ t("Location") }}</dt>
          <dd>
            <RouterLink :to="`/places/${device.placeId}`">{{ device.path.join(", ") }}</RouterLink>
          </dd>
        </div>
        <div>
          <dt>{{ device.devEui ? "DevEUI" : t("Address") }}</dt>
          <dd class="mono">{{ device.address }}</dd>
        </div>
        <div>
          <dt>{{ t("Comes in by") }}</dt>
          <dd>
            <RouterLink v-if="device.inletId" :to="`/fleet/inlets/${device.inletId}`">{{
              device.inletName
            }}</RouterLink>
            <template v-else>{{
              device.activation === "over-the-air" ? t("joining") : t("address and session keys")
            }}</template>
          </dd>
        </div>
        <div>
          <dt>{{ t("Heard") }}</dt>
          <dd>{{ age(device.lastHeard, now) }}</dd>
        </div>
        <div v-if="isRadio">
          <dt>{{ t("Signal") }}</dt>
          <dd>
            <template v-if="device.rssiDbm !== null">{{
              t("{rssiDbm} dBm, SNR {snrDb} dB, {dataRate}{margin}", {
                rssiDbm: device.rssiDbm,
                snrDb: device.snrDb,
                dataRate: device.dataRate,
                margin:
                  device.marginDb === null
                    ? ""
                    : t(", {marginDb} dB to spare", { marginDb: fixed(device.marginDb, 1) }),
              })
            }}</template><template v-else>–</template>
          </dd>
        </div>
        <div v-if="isRadio">
          <dt>{{ t("Counter") }}</dt>
          <dd>
            {{
              t("{counter}, {lost} lost of {frames} since the service started", {
                counter: device.counter ?? "–",
                lost: device.lost,
                frames: device.frames + device.lost,
              })
            }}
          </dd>
        </div>
        <div>
          <dt>{{ t("Battery") }}</dt>
          <dd>
            {{ device.batteryPercent === null ? "" : Math.round(device.batteryPercent) + " %" }}
            {{
              device.batteryVolts === null
                ? device.batteryPercent === null
                  ? model?.power?.chemistry === "mains"
                    ? t("mains")
                    : "–"
                  : ""
                : fixed(device.batteryVolts, 2) + " V"
            }}
          </dd>
        </div>
        <div>
          <dt>{{ t("Firmware, hardware") }}</dt>
          <dd>{{ device.firmware ?? "–" }}, {{ device.hardware ?? "–" }}</dd>
        </div>
        <div v-if="isRadio">
          <dt>{{ t("Gateways") }}</dt>
          <dd>{{ device.gateways.join(", ") || "–" }}</dd>
        </div>
      </dl>
      <p v-if="device.problem" class="problem">
        {{ t("Newest frame refused: {problem}", { problem: device.problem }) }}
      </p>
    </section>

    <CommissioningSheet v-if="arrived" :device="device" />

    <section class="sheet">
      <div class="sheet-head">
        <h2>{{ t("Channels") }}</h2>
        <el-button v-if="mayEdit && unreleased.length" type="primary" :loading="busy" @click="releaseAll">{{
          t("Release {unreleased} points", { unreleased: unreleased.length })
        }}</el-button>
      </div>
      <table class="rows cards">
        <thead>
          <tr>
            <th>{{ t("Channel") }}</th>
            <th>{{ t("Point") }}</th>
            <th>{{ t("Value") }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in channels" :key="one.name">
            <td>
              {{ one.title }}
              <div class="soft small mono">{{ one.name }}</div>
            </td>
            <td>
              <template v-if="one.assignment"
                ><RouterLink :to="`/points/${one.assignment.pointId}`">{{
                  one.assignment.pointName
                }}</RouterLink></template
              >
              <span v-else class="soft">{{
                one.name === model?.batteryChannel ? t("battery of the device") : t("feeds nothing")
              }}</span>
            </td>
            <td><ReadingValue v-if="one.point" :point="one.point" /></td>
            <td>
              <el-button v-if="mayEdit" link type="primary" @click="channel = one.name">{{
                one.assignment ? t("Change assignment") : t("Assign a point")
              }}</el-button>
              <el-button v-if="mayEdit && one.assignment" link type="primary" @click="calibrating = one">{{
                t("Calibrate")
              }}</el-button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>

    <DeviceHealth :device="device" />

    <CommandSheet v-if="isRadio" :device="device" :model="model" />
    <SignalSheet v-if="isRadio" :device="device" />

    <section class="sheet">
      <h2>{{ t("Newest frames") }}</h2>
      <FrameCard v-for="frame in frames.data.value" :key="frame.id" :frame="frame" />
      <p v-if="frames.data.value?.length === 0" class="soft">
        {{
          t("None yet. If nothing comes: is {way}? Is the device switched on and in reach? {address}", {
            way: isRadio ? t("a gateway online") : t("its inlet up"),
            address: isRadio ? t("Do the EUI and key fit?") : t("Does its address stand in its messages as here?"),
          })
        }}
      </p>
    </section>

    <DeviceChangeForm v-if="changing" :device="device" @close="((changing = false), load())" />
    <DecodeAgainForm v-if="again" :device="device" @close="((again = false), points.load())" />
    <AssignForm v-if="channel" :device="device" :channel="channel" @close="((channel = ''), load(), points.load())" />
    <CalibrateForm
      v-if="calibrating"
      :device="device"
      :channel="calibrating.name"
      :title="calibrating.title"
      @close="((calibrating = undefined), load(), points.load())"
    />
    <el-dialog v-model="removing" :title="t('Remove this device')">
      <p>
        {{
          t(
            "{name} is taken out, with its keys and radio session. The points that it fed and their history stay. To bring it back its keys must be entered again.",
            { name: device.name },
          )
        }}
      </p>
      <template #footer>
        <el-button @click="removing = false">{{ t("Cancel") }}</el-button>
        <el-button type="danger" @click="remove">{{ t("Remove {name}", { name: device.name }) }}</el-button>
      </template>
    </el-dialog>
  </div>
  <div v-else-if="problem" class="page">
    <ProblemNote :error="problem" />
    <p>
      <RouterLink to="/fleet/devices">{{ t("All devices") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.configuring {
  color: var(--warning);
  margin: 0 0 1rem;
}
.problem {
  color: var(--warning);
  margin: 0.75rem 0 0;
}
</style>
