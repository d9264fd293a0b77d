<script setup lang="ts">
import { t } from "@/language";
import type { Point, SpectrumKind } from "@/api/types";
import { moment } from "@/look/clock";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, defineAsyncComponent, ref, watch } from "vue";
import SpectrumFacts from "./SpectrumFacts.vue";
import { ENDS, KINDS, markables, marked, speedHz, strongest, usualMark, useSpectra } from "./spectra";
import type { Xy } from "./xyOption";

/** The waveforms of a point: spectrum, waveform, and how the spectrum went over the last weeks. */
const { point } = defineProps<{ point: Point }>();
const XyChart = defineAsyncComponent(() => import("./XyChart.vue"));
const WaterfallChart = defineAsyncComponent(() => import("./WaterfallChart.vue"));
const REFRESH_SECONDS = 60;
const DAYS = 90;
const MOST = 500;
const FORMS = { spectrum: t("Spectrum"), waveform: t("Waveform"), waterfall: t("Over time") };

const form = ref<keyof typeof FORMS>("spectrum");
const kind = ref<SpectrumKind>("velocity");
const untilHz = ref(1000);
const NEWEST = "newest";
const NONE = "none";
const FOUND = "found";
const at = ref(NEWEST);
const other = ref(NONE);
const mark = ref(FOUND);
/** A frequency of one's own, such as that of a gear: its teeth times the speed. */
const OWN = "own";
const ownHz = ref<number>();
const withSidebands = ref(false);
const ask = useSpectra();

const kept = useRefreshed(() => ask.kept(point.id, MOST), [() => point.id], REFRESH_SECONDS);
const any = computed(() => !!kept.data.value?.length);
const wanted = computed(() => ({
  kind: kind.value,
  untilHz: untilHz.value,
  at: at.value === NEWEST ? undefined : at.value,
}));

const shown = useRefreshed(
  async () => {
    if (!any.value) {
      return undefined;
    }
    const [spectrum, waveform, earlier, fall] = await Promise.all([
      ask.spectrum(point.id, wanted.value),
      ask.waveform(point.id, wanted.value.at),
      other.value !== NONE ? ask.spectrum(point.id, { ...wanted.value, at: other.value }) : undefined,
      form.value === "waterfall"
        ? ask.waterfall(point.id, wanted.value, new Date(Date.now() - DAYS * 86_400_000))
        : undefined,
    ]);
    return { spectrum, waveform, earlier, fall };
  },
  [any, wanted, other, form],
  REFRESH_SECONDS,
);
watch(
  () => point.id,
  () => {
    at.value = NEWEST;
    other.value = NONE;
    mark.value = FOUND;
  },
);

const marks = computed(() => markables(shown.data.value?.spectrum.markers ?? []));
/** What is chosen; else what was found, or the running speed. */
const chosen = computed(() => {
  if (mark.value === OWN) {
    return { id: OWN, label: t("own frequency"), hz: ownHz.value ?? 0 };
  }
  const spectrum = shown.data.value?.spectrum;
  const id = mark.value === FOUND && spectrum ? usualMark(spectrum) : mark.value;
  return marks.value.find((one) => one.id === id);
});
/** Sidebands stand apart by the running speed; around the speed itself they would be its multiples. */
const besideHz = computed(() =>
  withSidebands.value && chosen.value?.id !== "speed" && shown.data.value
    ? speedHz(shown.data.value.spectrum)
    : undefined,
);
const lines = computed<Xy[]>(() => {
  const found = shown.data.value;
  if (!found) {
    return [];
  }
  if (form.value === "waveform") {
    return [{ name: moment(found.waveform.time), x: found.waveform.seconds, y: found.waveform.values }];
  }
  return [found.spectrum, ...(found.earlier ? [found.earlier] : [])].map((spectrum, i) => ({
    name: moment(spectrum.time),
    x: spectrum.hz,
    y: spectrum.values,
    compared: i > 0,
  }));
});
</script>

<template>
  <section v-if="any || kept.error.value" class="sheet vibration">
    <div class="sheet-head">
      <h2>{{ t("Waveforms") }}</h2>
      <div class="forms" role="group" :aria-label="t('Shown as')">
        <el-button
          v-for="(name, id) in FORMS"
          :key="id"
          :type="form === id ? 'primary' : 'default'"
          :aria-pressed="form === id"
          @click="form = id"
          >{{ name }}</el-button
        >
      </div>
    </div>
    <ProblemNote :error="kept.error.value ?? shown.error.value" />
    <div class="choices">
      <el-select v-if="form !== 'waveform'" v-model="kind" :aria-label="t('Spectrum of')">
        <el-option v-for="(name, id) in KINDS" :key="id" :value="id" :label="name" />
      </el-select>
      <el-select v-if="form !== 'waveform'" v-model="untilHz" :aria-label="t('Up to')">
        <el-option v-for="hz in ENDS" :key="hz" :value="hz" :label="t('up to {hz} Hz', { hz })" />
      </el-select>
      <el-select v-if="form !== 'waterfall'" v-model="at" filterable :aria-label="t('Measured at')">
        <el-option :value="NEWEST" :label="t('newest')" />
        <el-option v-for="one in kept.data.value" :key="one.time" :value="one.time" :label="moment(one.time)" />
      </el-select>
      <template v-if="form === 'spectrum'">
        <el-select v-model="other" filterable :aria-label="t('Compared with')">
          <el-option :value="NONE" :label="t('compared with nothing')" />
          <el-option
            v-for="one in kept.data.value"
            :key="one.time"
            :value="one.time"
            :label="t('compared with {moment}', { moment: moment(one.time) })"
          />
        </el-select>
        <el-select v-model="mark" :aria-label="t('Marked')">
          <el-option
            :value="FOUND"
            :label="
              mark === FOUND
                ? t('marked: {label}', { label: chosen?.label ?? t('nothing') })
                : t('marked: what was found')
            "
          />
          <el-option
            v-for="one in marks"
            :key="one.id"
            :value="one.id"
            :label="t('marked: {label}', { label: one.label })"
          />
          <el-option :value="OWN" :label="t('marked: own frequency')" />
        </el-select>
        <el-input-number
          v-if="mark === OWN"
          v-model="ownHz"
          :min="0.1"
          :max="100000"
          :controls="false"
          :aria-label="t('Own frequency, Hz')"
          placeholder="Hz"
        />
        <el-checkbox
          v-if="chosen && chosen.id !== 'speed' && shown.data.value && speedHz(shown.data.value.spectrum)"
          v-model="withSidebands"
          >{{ t("sidebands at the running speed") }}</el-checkbox
        >
      </template>
    </div>
    <template v-if="shown.data.value">
      <div class="canvas">
        <WaterfallChart v-if="form === 'waterfall' && shown.data.value.fall" :fall="shown.data.value.fall" />
        <XyChart
          v-else-if="form !== 'waterfall'"
          role="img"
          :aria-label="strongest(shown.data.value.spectrum)"
          :lines="lines"
          :x-unit="form === 'waveform' ? 's' : 'Hz'"
          :y-unit="form === 'waveform' ? shown.data.value.waveform.unit : shown.data.value.spectrum.unit"
          :marks="form === 'waveform' ? [] : marked(chosen, untilHz, besideHz)"
          :speed-hz="speedHz(shown.data.value.spectrum)"
        />
      </div>
      <SpectrumFacts
        v-if="form !== 'waterfall'"
        :spectrum="shown.data.value.spectrum"
        :waveform="shown.data.value.waveform"
      />
    </template>
    <p v-if="shown.data.value && marks.length < 2" class="soft small">
      {{ t("Enter the speed and the bearings of the machine on its page under") }} <em>{{ t("Name, limits …") }}</em>{{
        t("; their lines are then marked here.")
      }}
    </p>
  </section>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-bottom: 0.5rem;
}
.choices .el-select {
  width: 15rem;
}
.canvas {
  height: 320px;
  margin-bottom: 0.75rem;
}
</style>
