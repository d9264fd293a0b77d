<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Device } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive, ref } from "vue";
import { calibrationOf, draftOf, pairs } from "./calibration";

/** Lets a channel feed a point, with a calibration of its own where the model's does not fit this device. */
const { device, channel } = defineProps<{ device: Device; channel: string }>();
const emit = defineEmits<{ close: [] }>();
const points = usePoints();
const places = usePlaces();
const { busy, error, run } = useAction();
const present = device.assignments.find((one) => one.channel === channel);
const pointId = ref(present?.pointId ?? "");
const form = reactive(draftOf(present?.calibration));
const note = ref("");
const since = ref<"now" | "always">("now");
const rows = computed(() => pairs(form.table));
const choices = computed(() => points.all.filter((point) => places.may("edit", point.placeId)));
/** Another stretch of time begins only where the same point goes on. */
const goesOn = computed(() => present?.pointId === pointId.value);

async function save() {
  const done = await run(
    () =>
      api.post(`devices/${device.id}/assignments`, {
        channel,
        pointId: pointId.value,
        calibration: calibrationOf(form),
        from: goesOn.value && since.value === "now" ? new Date().toISOString() : null,
        note: note.value || null,
      }),
    t("It feeds the point now."),
  );
  if (done) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('What {channel} of {name} feeds', { channel, name: device.name })"
    :save-label="t('Save')"
    :error="error"
    :busy="busy"
    :disabled="!pointId"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Point; what fed it until now ends')" for="assign-point">
      <el-select id="assign-point" v-model="pointId" filterable :aria-label="t('Point')">
        <el-option
          v-for="point in choices"
          :key="point.id"
          :value="point.id"
          :label="`${point.path.at(-1)}, ${point.name}`"
        />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Calibration')" for="assign-calibration">
      <el-select id="assign-calibration" v-model="form.kind" :aria-label="t('Calibration')">
        <el-option value="none" :label="t('the model\'s')" />
        <el-option value="linear" :label="t('for this device: times and plus')" />
        <el-option value="two-point" :label="t('for this device: two readings in known conditions')" />
        <el-option value="table" :label="t('for this device: a table, for a tank of odd shape')" />
        <el-option value="current-loop" :label="t('for this device: 4 to 20 mA')" />
        <el-option value="clamp" :label="t('for this device: keep within a range')" />
        <el-option value="invert" :label="t('for this device: mirror a range')" />
        <el-option
          v-if="form.whole?.kind === 'steps'"
          value="steps"
          :label="t('for this device: several steps, as they are')"
        />
      </el-select>
    </el-form-item>
    <div v-if="form.kind === 'linear'" class="row">
      × <el-input-number v-model="form.scale" :controls="false" :aria-label="t('Scale')" /> +
      <el-input-number v-model="form.offset" :controls="false" :aria-label="t('Offset')" />
    </div>
    <template v-else-if="form.kind === 'two-point'">
      <div class="row">
        {{ t("raw") }} <el-input-number v-model="form.raw1" :controls="false" :aria-label="t('First raw number')" />
        {{ t("is") }}
        <el-input-number v-model="form.value1" :controls="false" :aria-label="t('First value')" />
      </div>
      <div class="row">
        {{ t("raw") }} <el-input-number v-model="form.raw2" :controls="false" :aria-label="t('Second raw number')" />
        {{ t("is") }}
        <el-input-number v-model="form.value2" :controls="false" :aria-label="t('Second value')" />
      </div>
    </template>
    <el-form-item
      v-else-if="form.kind === 'table'"
      :label="t('Raw number and value, one pair a line, the lowest first: {rows} pairs', { rows: rows.length })"
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
    <template v-else-if="form.kind === 'current-loop'">
      <div class="row">
        {{ t("4 mA is") }} <el-input-number v-model="form.low" :controls="false" :aria-label="t('Value at 4 mA')" />{{
          t(", 20 mA is")
        }}
        <el-input-number v-model="form.high" :controls="false" :aria-label="t('Value at 20 mA')" />
      </div>
      <p class="soft small">
        {{ t("3.6 mA and less, and 21 mA and more, are no value but a fault of the wire or the transmitter.") }}
      </p>
    </template>
    <div v-else-if="form.kind === 'clamp' || form.kind === 'invert'" class="row">
      {{ t("from") }} <el-input-number v-model="form.low" :controls="false" :aria-label="t('from')" /> {{ t("to") }}
      <el-input-number v-model="form.high" :controls="false" :aria-label="t('to')" />
    </div>
    <el-form-item v-if="goesOn" :label="t('Applies')" for="assign-since">
      <el-radio-group id="assign-since" v-model="since" :aria-label="t('Applies')">
        <el-radio value="now">{{ t("from now on") }}</el-radio>
        <el-radio value="always">{{ t("to all readings since the last calibration") }}</el-radio>
      </el-radio-group>
    </el-form-item>
    <p v-if="goesOn && since === 'always'" class="soft small">
      {{ t("Stored readings change when you then choose “Read frames again” on the device's page.") }}
    </p>
    <el-form-item :label="t('Note')" for="assign-note">
      <el-input id="assign-note" v-model="note" maxlength="200" :placeholder="t('such as: against the reference')" />
    </el-form-item>
  </FormDialog>
</template>
