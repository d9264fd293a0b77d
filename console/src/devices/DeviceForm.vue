<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Device, DeviceModel, Inlet, Label } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive, ref } from "vue";
import { useRouter } from "vue-router";
import { hexProblem } from "@/frames/hex";
import LabelScanner from "./LabelScanner.vue";

/** Brings a device in: what it is, where it hangs, and its EUI and keys, or its address at an inlet. */
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const router = useRouter();
const models = useLoad(() => api.get<DeviceModel[]>("models"));
const { busy, error, run } = useAction();
const form = reactive({
  name: "",
  modelId: "",
  placeId: places.editable.find((place) => place.kind === "asset")?.id ?? places.editable[0]?.id ?? "",
  devEui: "",
  activation: "over-the-air",
  joinEui: "",
  appKey: "",
  devAddr: "",
  nwkSKey: "",
  appSKey: "",
  inletId: "",
  address: "",
  makePoints: true,
});
const scanning = ref(false);
const code = ref("");
const label = ref<Label>();
const keyListed = computed(
  () => label.value?.keyIsListed && label.value.devEui === form.devEui.replace(/[\s:-]/g, "").toLowerCase(),
);

/** Takes what the label's code says into the form. */
async function readLabel(text: string) {
  scanning.value = false;
  code.value = text;
  await run(async () => {
    const read = await api.post<Label>("labels/read", { text });
    label.value = read;
    form.devEui = read.devEui;
    form.joinEui = read.joinEui;
    form.activation = "over-the-air";
    form.modelId = read.modelId ?? form.modelId;
    form.name ||= read.serialNumber ?? "";
  });
}
const inlets = useLoad(async () => (await api.get<Inlet[]>("inlets")).filter((one) => one.id !== null));
const byInlet = computed(() => form.activation === "inlet");
const addressHint = computed(() => {
  const kind = inlets.data.value?.find((one) => one.id === form.inletId)?.kind;
  return kind === "modbus-tcp"
    ? "192.0.2.7:502/1"
    : kind?.startsWith("modbus")
      ? "1"
      : t("as it stands in its messages");
});
const joins = computed(() => form.activation === "over-the-air");
const problems = computed(() => ({
  devEui: hexProblem(form.devEui, 16),
  joinEui: hexProblem(form.joinEui, 16),
  appKey: hexProblem(form.appKey, 32),
  devAddr: hexProblem(form.devAddr, 8),
  nwkSKey: hexProblem(form.nwkSKey, 32),
  appSKey: hexProblem(form.appSKey, 32),
}));
const ready = computed(
  () =>
    form.name &&
    form.modelId &&
    form.placeId &&
    (byInlet.value ? form.inletId && form.address : form.devEui && !problems.value.devEui && keysAreThere.value),
);
const keysAreThere = computed(() =>
  joins.value
    ? (form.appKey || keyListed.value) && !problems.value.appKey && !problems.value.joinEui
    : form.devAddr &&
      form.nwkSKey &&
      form.appSKey &&
      !problems.value.devAddr &&
      !problems.value.nwkSKey &&
      !problems.value.appSKey,
);

async function save() {
  const clean = (text: string) => text.replace(/[\s:-]/g, "") || null;
  const keys = joins.value
    ? { joinEui: clean(form.joinEui), appKey: clean(form.appKey) }
    : { devAddr: clean(form.devAddr), nwkSKey: clean(form.nwkSKey), appSKey: clean(form.appSKey) };
  await run(
    async () => {
      const device = await api.post<Device>("devices", {
        name: form.name,
        modelId: form.modelId,
        placeId: form.placeId,
        makePoints: form.makePoints,
        ...(byInlet.value ? { inletId: form.inletId, address: form.address } : { devEui: clean(form.devEui), ...keys }),
      });
      await points.load();
      emit("close");
      await router.push("/fleet/devices/" + device.id);
    },
    t("{name} is in. Its first frame is awaited.", { name: form.name }),
  );
}
</script>

<template>
  <FormDialog
    :title="t('Bring a device in')"
    :save-label="t('Bring it in')"
    :error="error"
    :busy="busy"
    :disabled="!ready"
    @save="save"
    @close="emit('close')"
  >
    <p v-if="models.data.value?.length === 0" class="soft">
      {{ t("There is no device model yet. Add one first, under") }}
      <RouterLink to="/fleet/models">{{ t("Models") }}</RouterLink>.
    </p>
    <LabelScanner v-if="scanning" @found="readLabel" @close="scanning = false" />
    <el-form-item :label="t('Code on its label, if it has one')" for="device-code">
      <div class="row code">
        <el-input
          id="device-code"
          v-model="code"
          class="mono"
          placeholder="LW:D0:…"
          autocomplete="off"
          @change="code && readLabel(code)"
        />
        <el-button v-if="!scanning" @click="scanning = true">{{ t("Scan") }}</el-button>
      </div>
    </el-form-item>
    <p v-if="label?.deviceId" role="alert" class="small">
      {{ t("This device is here already:") }}
      <RouterLink :to="`/fleet/devices/${label.deviceId}`">{{ label.deviceName }}</RouterLink>.
    </p>
    <el-form-item :label="t('Device model')" for="device-model">
      <el-select id="device-model" v-model="form.modelId" filterable :aria-label="t('Device model')">
        <el-option v-for="model in models.data.value" :key="model.id" :value="model.id" :label="model.name" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Name')" for="device-name"><el-input id="device-name" v-model="form.name" /></el-form-item>
    <el-form-item :label="t('Location')" for="device-place">
      <el-select id="device-place" v-model="form.placeId" filterable :aria-label="t('Location')">
        <el-option v-for="place in places.editable" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
    </el-form-item>
    <el-form-item
      v-if="!byInlet"
      :label="t('DevEUI, 16 hex digits on its label')"
      for="device-eui"
      :error="problems.devEui"
    >
      <el-input id="device-eui" v-model="form.devEui" class="mono" autocomplete="off" />
    </el-form-item>
    <el-form-item :label="t('Connection')">
      <el-radio-group v-model="form.activation">
        <el-radio value="over-the-air">{{ t("it joins with an application key") }}</el-radio>
        <el-radio value="personalised">{{ t("address and session keys are in it") }}</el-radio>
        <el-radio v-if="inlets.data.value?.length" value="inlet">{{ t("by an inlet") }}</el-radio>
      </el-radio-group>
    </el-form-item>
    <template v-if="byInlet">
      <el-form-item :label="t('Inlet')" for="device-inlet">
        <el-select id="device-inlet" v-model="form.inletId" :aria-label="t('Inlet')">
          <el-option v-for="one in inlets.data.value" :key="one.id ?? ''" :value="one.id ?? ''" :label="one.name" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('Its address there')" for="device-address">
        <el-input
          id="device-address"
          v-model="form.address"
          class="mono"
          autocomplete="off"
          :placeholder="addressHint"
        />
      </el-form-item>
    </template>
    <template v-else-if="joins">
      <el-form-item :label="t('JoinEUI (may be empty)')" for="device-join" :error="problems.joinEui"
        ><el-input id="device-join" v-model="form.joinEui" class="mono" autocomplete="off"
      /></el-form-item>
      <p v-if="keyListed" class="small">{{ t("Its key was loaded beforehand: nothing to enter.") }}</p>
      <el-form-item v-else :label="t('AppKey, 32 hex digits')" for="device-key" :error="problems.appKey"
        ><el-input id="device-key" v-model="form.appKey" class="mono" autocomplete="off"
      /></el-form-item>
    </template>
    <template v-else>
      <el-form-item :label="t('DevAddr, 8 hex digits')" for="device-addr" :error="problems.devAddr"
        ><el-input id="device-addr" v-model="form.devAddr" class="mono" autocomplete="off"
      /></el-form-item>
      <el-form-item :label="t('NwkSKey, 32 hex digits')" for="device-nwk" :error="problems.nwkSKey"
        ><el-input id="device-nwk" v-model="form.nwkSKey" class="mono" autocomplete="off"
      /></el-form-item>
      <el-form-item :label="t('AppSKey, 32 hex digits')" for="device-app" :error="problems.appSKey"
        ><el-input id="device-app" v-model="form.appSKey" class="mono" autocomplete="off"
      /></el-form-item>
    </template>
    <el-checkbox v-model="form.makePoints">{{ t("Make a point for each of its channels") }}</el-checkbox>
    <p v-if="!byInlet" class="soft small">{{ t("Keys are encrypted when they are kept, and never shown again.") }}</p>
  </FormDialog>
</template>

<style scoped>
.code {
  width: 100%;
  flex-wrap: nowrap;
}
</style>
