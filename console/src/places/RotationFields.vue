<script setup lang="ts">
import { t } from "@/language";
import type { Rotation } from "@/api/types";
import { usePoints } from "@/points/points";
import { computed } from "vue";

/** How a machine turns: its speed, or the point that measures it, and the geometry of its bearings. */
const rotation = defineModel<Rotation>({ required: true });
const points = usePoints();
const speeds = computed(() =>
  points.all.filter((point) => ["1/min", "Hz"].includes(point.unit) && point.quantity !== "signal"),
);
const MOST = 12;

const NUMBERS = [
  { key: "elements", label: t("Balls or rollers"), step: 1, min: 3 },
  { key: "elementDiameterMm", label: t("Ball diameter, mm"), step: 0.1, min: 0.1 },
  { key: "pitchDiameterMm", label: t("Pitch diameter, mm"), step: 0.1, min: 0.1 },
  { key: "contactDegrees", label: t("Contact angle, °"), step: 1, min: 0 },
] as const;

function change(part: Partial<Rotation>) {
  rotation.value = { ...rotation.value, ...part };
}

function add() {
  const name = t("bearing {number}", { number: rotation.value.bearings.length + 1 });
  change({
    bearings: [
      ...rotation.value.bearings,
      { name, elements: 9, elementDiameterMm: 8, pitchDiameterMm: 39, contactDegrees: 0 },
    ],
  });
}

function set(at: number, key: string, value: string | number) {
  change({ bearings: rotation.value.bearings.map((one, i) => (i === at ? { ...one, [key]: value } : one)) });
}
</script>

<template>
  <fieldset>
    <legend>{{ t("Rotating machine") }}</legend>
    <div class="pair">
      <el-form-item :label="t('Speed on the plate, rpm')" for="place-rpm">
        <el-input
          id="place-rpm"
          :model-value="rotation.rpm ?? ''"
          inputmode="decimal"
          :placeholder="t('not known')"
          @update:model-value="(text: string) => change({ rpm: text.trim() ? Number(text.replace(',', '.')) : null })"
        />
      </el-form-item>
      <el-form-item :label="t('Point that measures the speed')" for="place-speed">
        <el-select
          id="place-speed"
          :model-value="rotation.speedPointId ?? ''"
          filterable
          clearable
          :placeholder="t('none')"
          :aria-label="t('Point that measures the speed')"
          @update:model-value="(id?: string) => change({ speedPointId: id || null })"
        >
          <el-option v-for="point in speeds" :key="point.id" :value="point.id" :label="point.name" />
        </el-select>
      </el-form-item>
    </div>
    <div v-for="(bearing, at) in rotation.bearings" :key="at" class="bearing">
      <label class="wide"
        ><span class="small soft">{{ t("Bearing") }}</span
        ><el-input
          :model-value="bearing.name"
          :aria-label="t('Name of bearing {number}', { number: at + 1 })"
          @update:model-value="(text: string) => set(at, 'name', text)"
      /></label>
      <label v-for="{ key, label, step, min } in NUMBERS" :key="key"
        ><span class="small soft">{{ label }}</span
        ><el-input-number
          :model-value="bearing[key]"
          :aria-label="`${label}, ${bearing.name}`"
          :step="step"
          :min="min"
          :controls="false"
          @update:model-value="(number: number | undefined) => set(at, key, number ?? 0)"
      /></label>
      <el-button link type="primary" @click="change({ bearings: rotation.bearings.filter((_, i) => i !== at) })">{{
        t("Remove {name}", { name: bearing.name })
      }}</el-button>
    </div>
    <el-button v-if="rotation.bearings.length < MOST" @click="add">{{ t("Add bearing") }}</el-button>
    <p class="soft small">
      {{ t("The geometry is in the data sheet of the bearing. It is used to mark its lines in spectra.") }}
    </p>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 0.5rem 0.9rem 0.6rem;
  margin: 0;
  min-width: 0;
}
.pair,
.bearing {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.3rem 0.75rem;
}
.bearing {
  padding: 0.5rem 0;
  border-top: 1px solid var(--line);
}
.wide {
  grid-column: 1 / -1;
}
label {
  display: block;
}
.el-input-number {
  width: 100%;
}
p {
  margin: 0.4rem 0 0;
}
</style>
