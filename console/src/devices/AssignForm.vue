<script setup lang="ts">
import { api } from "@/api/http";
import type { Device } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive } from "vue";

/** Lets a channel feed a point, with a calibration of its own where the model's does not fit this device. */
const { device, channel } = defineProps<{ device: Device; channel: string }>();
const emit = defineEmits<{ close: [] }>();
const points = usePoints();
const places = usePlaces();
const { busy, error, run } = useAction();
const form = reactive({
  pointId: device.assignments.find((one) => one.channel === channel)?.pointId ?? "",
  own: "none",
  scale: 1,
  offset: 0,
  raw1: 0,
  value1: 0,
  raw2: 1,
  value2: 1,
  low: 0,
  high: 100,
  table: "",
});
/** Lines of two numbers each. */
const rows = computed(() =>
  form.table
    .split("\n")
    .map((line) =>
      line
        .trim()
        .split(/[\s;]+/)
        .map((number) => Number(number.replace(",", "."))),
    )
    .filter((row) => row.length === 2 && row.every(Number.isFinite)),
);
const choices = computed(() => points.all.filter((point) => places.may("edit", point.placeId)));

async function save() {
  const calibration =
    form.own === "linear"
      ? { kind: "linear", scale: form.scale, offset: form.offset }
      : form.own === "two-point"
        ? { kind: "two-point", raw1: form.raw1, value1: form.value1, raw2: form.raw2, value2: form.value2 }
        : form.own === "clamp" || form.own === "invert"
          ? { kind: form.own, low: form.low, high: form.high }
          : form.own === "current-loop"
            ? { kind: form.own, low: form.low, high: form.high, faultBelow: null, faultAbove: null }
            : form.own === "table"
              ? { kind: "table", raw: rows.value.map((row) => row[0]), values: rows.value.map((row) => row[1]) }
              : null;
  if (
    await run(
      () => api.post(`devices/${device.id}/assignments`, { channel, pointId: form.pointId, calibration }),
      "It feeds the point now.",
    )
  ) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="`What ${channel} of ${device.name} feeds`"
    save-label="Save"
    :error="error"
    :busy="busy"
    :disabled="!form.pointId"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item label="Point; what fed it until now ends" for="assign-point">
      <el-select id="assign-point" v-model="form.pointId" filterable aria-label="Point">
        <el-option
          v-for="point in choices"
          :key="point.id"
          :value="point.id"
          :label="`${point.path.at(-1)}, ${point.name}`"
        />
      </el-select>
    </el-form-item>
    <el-form-item label="Calibration" for="assign-calibration">
      <el-select id="assign-calibration" v-model="form.own" aria-label="Calibration">
        <el-option value="none" label="the model's" />
        <el-option value="linear" label="for this device: times and plus" />
        <el-option value="two-point" label="for this device: two readings in known conditions" />
        <el-option value="table" label="for this device: a table, for a tank of odd shape" />
        <el-option value="current-loop" label="for this device: 4 to 20 mA" />
        <el-option value="clamp" label="for this device: keep within a range" />
        <el-option value="invert" label="for this device: mirror a range" />
      </el-select>
    </el-form-item>
    <div v-if="form.own === 'linear'" class="row">
      × <el-input-number v-model="form.scale" :controls="false" aria-label="Scale" /> +
      <el-input-number v-model="form.offset" :controls="false" aria-label="Offset" />
    </div>
    <template v-else-if="form.own === 'two-point'">
      <div class="row">
        raw <el-input-number v-model="form.raw1" :controls="false" aria-label="First raw number" /> is
        <el-input-number v-model="form.value1" :controls="false" aria-label="First value" />
      </div>
      <div class="row">
        raw <el-input-number v-model="form.raw2" :controls="false" aria-label="Second raw number" /> is
        <el-input-number v-model="form.value2" :controls="false" aria-label="Second value" />
      </div>
    </template>
    <el-form-item
      v-else-if="form.own === 'table'"
      :label="`Raw number and value, one pair a line, the lowest first: ${rows.length} pairs`"
      for="assign-table"
    >
      <el-input
        id="assign-table"
        v-model="form.table"
        type="textarea"
        :rows="5"
        placeholder="0 0&#10;1.5 820&#10;3 2400"
      />
    </el-form-item>
    <template v-else-if="form.own === 'current-loop'">
      <div class="row">
        4 mA is <el-input-number v-model="form.low" :controls="false" aria-label="Value at 4 mA" />, 20 mA is
        <el-input-number v-model="form.high" :controls="false" aria-label="Value at 20 mA" />
      </div>
      <p class="soft small">
        3.6 mA and less, and 21 mA and more, are no value but a fault of the wire or the transmitter.
      </p>
    </template>
    <div v-else-if="form.own !== 'none'" class="row">
      from <el-input-number v-model="form.low" :controls="false" aria-label="from" /> to
      <el-input-number v-model="form.high" :controls="false" aria-label="to" />
    </div>
  </FormDialog>
</template>
