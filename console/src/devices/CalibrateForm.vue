<script setup lang="ts">
import { t } from "@/language";
import { trimmed } from "@/look/numbers";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Device, Frame } from "@/api/types";
import { useAction } from "@/look/act";
import { age, now } from "@/look/clock";
import FormDialog from "@/look/FormDialog.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePoints } from "@/points/points";
import { computed, reactive, ref } from "vue";
import { hasSettled, rawOf } from "./calibration";

/** Two readings in known conditions, step by step, for somebody who stands beside the sensor with a phone. */
const { device, channel, title } = defineProps<{ device: Device; channel: string; title: string }>();
const emit = defineEmits<{ close: [] }>();
const { busy, error, run } = useAction();
const points = usePoints();
const present = device.assignments.find((one) => one.channel === channel);
const point = computed(() => points.byId.get(present?.pointId ?? ""));
const unit = computed(() => point.value?.unit ?? "");

/** What came so far, the newest last; what was there when the form opened does not say whether it is at rest. */
const seen = ref<{ at: string; raw: number }[]>([]);
const before = useLoad(async () => {
  const frames = await api.get<Frame[]>(`frames?device=${device.id}&limit=20`);
  const newest = frames.find((frame) => rawOf(frame.values, channel) !== undefined);
  if (newest && !seen.value.length) {
    seen.value = [{ at: newest.time, raw: rawOf(newest.values, channel) ?? 0 }];
  }
});
onLive<Frame>("frame", (frame) => {
  const raw = frame.deviceId === device.id && frame.accepted ? rawOf(frame.values, channel) : undefined;
  if (raw !== undefined) {
    seen.value = [...seen.value, { at: frame.time, raw }].slice(-30);
  }
});
const newest = computed(() => seen.value.at(-1));
const settled = computed(() => hasSettled(seen.value.map((one) => one.raw)));

const steps = reactive([
  { raw: undefined as number | undefined, value: undefined as number | undefined, hint: t("such as in air, or empty") },
  {
    raw: undefined as number | undefined,
    value: undefined as number | undefined,
    hint: t("such as in water, or full"),
  },
]);
const note = ref("");
const step = computed(() => steps.findIndex((one) => one.raw === undefined));
const ready = computed(() => steps.every((one) => one.raw !== undefined && one.value !== undefined));
const equal = computed(() => step.value < 0 && steps[0]?.raw === steps[1]?.raw);
/** What the newest raw number would read as. */
const wouldRead = computed(() => {
  const [one, other] = steps;
  if (!ready.value || equal.value || !newest.value || !one || !other) {
    return undefined;
  }
  const share = (newest.value.raw - (one.raw ?? 0)) / ((other.raw ?? 0) - (one.raw ?? 0));
  return (one.value ?? 0) + share * ((other.value ?? 0) - (one.value ?? 0));
});

function take(index: number) {
  const one = steps[index];
  if (one && newest.value) {
    one.raw = newest.value.raw;
    // The next condition is another one: whether it is at rest is to be seen anew.
    seen.value = [newest.value];
  }
}

async function save() {
  const done = await run(
    () =>
      api.post(`devices/${device.id}/assignments`, {
        channel,
        pointId: present?.pointId,
        calibration: {
          kind: "two-point",
          raw1: steps[0]?.raw,
          value1: steps[0]?.value,
          raw2: steps[1]?.raw,
          value2: steps[1]?.value,
        },
        from: new Date().toISOString(),
        note: note.value || null,
      }),
    t("Calibrated from now on."),
  );
  if (done) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Calibrate {title}', { title })"
    :save-label="t('Calibrate from now on')"
    :error="error"
    :busy="busy"
    :disabled="!ready || equal"
    @save="save"
    @close="emit('close')"
  >
    <ProblemNote :error="before.error.value" />
    <p class="now" role="status" aria-live="polite">
      <template v-if="newest">
        {{ t("Raw number") }} <strong class="mono">{{ Number(newest.raw.toPrecision(6)) }}</strong><span class="soft"
          >, {{ age(newest.at, now) }}, {{ settled ? t("settled") : t("not settled yet") }}</span
        >
      </template>
      <span v-else class="soft">{{ t("Waiting for the first report with this channel …") }}</span>
    </p>
    <fieldset v-for="(one, i) in steps" :key="i" class="condition" :disabled="step >= 0 && i > step">
      <legend>{{ t("{which} known condition", { which: i ? t("Second") : t("First") }) }}</legend>
      <p class="soft small">
        {{ t("Put the sensor into a known condition, {hint}, and wait until it has settled.", { hint: one.hint }) }}
      </p>
      <div class="row">
        <el-button :disabled="!newest || (step >= 0 && i > step)" @click="take(i)">{{
          one.raw === undefined ? t("Take this raw number") : t("Take it again")
        }}</el-button>
        <span v-if="one.raw !== undefined" class="mono">{{ Number(one.raw.toPrecision(6)) }}</span>
      </div>
      <label class="row"
        >{{ t("True value") }}
        <el-input-number
          v-model="one.value"
          :controls="false"
          :disabled="step >= 0 && i > step"
          :aria-label="t('True value in the {which} condition', { which: i ? t('second') : t('first') })"
        />
        {{ unit }}</label
      >
    </fieldset>
    <p v-if="equal" role="alert">{{ t("Both conditions gave the same raw number. Two different ones are needed.") }}</p>
    <p v-if="wouldRead !== undefined">
      {{ t("The present raw number then reads as") }}
      <strong>{{ trimmed(Number(wouldRead.toPrecision(4)), 9) }} {{ unit }}</strong
      >.
    </p>
    <p class="soft small">
      {{
        t(
          "Readings until now keep their calibration. A device that reports rarely: set a short interval first, or press its button for a report.",
        )
      }}
    </p>
    <el-form-item :label="t('Note')" for="calibrate-note">
      <el-input id="calibrate-note" v-model="note" maxlength="200" :placeholder="t('such as: dry soil, then wet')" />
    </el-form-item>
  </FormDialog>
</template>

<style scoped>
.now {
  font-size: 1.1rem;
}
.condition {
  border: 1px solid var(--line);
  border-radius: 6px;
  margin: 0 0 0.75rem;
  padding: 0.5rem 0.75rem 0.75rem;
  min-width: 0;
}
.condition p {
  margin: 0 0 0.5rem;
}
label.row {
  margin-top: 0.5rem;
}
</style>
