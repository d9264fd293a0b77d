<script setup lang="ts">
import { t } from "@/language";
import type { Waterfall } from "@/api/types";
import { colour, dark } from "@/look/appearance";
import { day, moment } from "@/look/clock";
import { computed, nextTick, onMounted, useTemplateRef, watch } from "vue";
import { three } from "./spectra";
import { greatest, rgb, roundTicks, shade } from "./waterfall";

/** Spectra one below the other, oldest on top: frequency to the right, darker where it vibrates more. */
const { fall } = defineProps<{ fall: Waterfall }>();
const canvas = useTemplateRef<HTMLCanvasElement>("canvas");
const most = computed(() => greatest(fall.rows));
const untilHz = computed(() => fall.fromHz + fall.stepHz * (fall.rows[0]?.values.length ?? 0));
const ticks = computed(() => roundTicks(fall.fromHz, untilHz.value));

function draw() {
  const context = canvas.value?.getContext("2d");
  const width = fall.rows[0]?.values.length ?? 0;
  if (!context || !canvas.value || !width) {
    return;
  }
  canvas.value.width = width;
  canvas.value.height = fall.rows.length;
  const picture = context.createImageData(width, fall.rows.length);
  const [low, high] = [rgb(colour("ramp-0")), rgb(colour("ink"))];
  fall.rows.forEach((row, y) =>
    row.values.forEach((value, x) =>
      picture.data.set([...shade(value / most.value, low, high), 255], (y * width + x) * 4),
    ),
  );
  context.putImageData(picture, 0, 0);
}

onMounted(draw);
watch([() => fall, dark], () => nextTick(draw));
</script>

<template>
  <div class="fall">
    <div class="times soft small">
      <span>{{ day(fall.rows[0]?.time ?? "") }}</span>
      <span>{{ moment(fall.rows.at(-1)?.time ?? "") }}</span>
    </div>
    <canvas
      ref="canvas"
      role="img"
      :aria-label="
        t('{rows} spectra from {from} to {until} Hz; highest {most} {unit}', {
          rows: fall.rows.length,
          from: Math.round(fall.fromHz),
          until: Math.round(untilHz),
          most: three(most),
          unit: fall.unit,
        })
      "
    ></canvas>
    <div class="ticks soft small">
      <span v-for="tick in ticks" :key="tick.hz" :style="{ left: tick.at * 100 + '%' }">{{ tick.hz }} Hz</span>
    </div>
    <p class="soft small key">
      <i aria-hidden="true"></i>
      {{
        t("0 to {most} {unit}, {rows} spectra", {
          most: three(most),
          unit: fall.unit,
          rows: fall.rows.length,
        })
      }}
    </p>
  </div>
</template>

<style scoped>
.fall {
  display: grid;
  grid-template: minmax(120px, 1fr) auto auto / auto 1fr;
  gap: 0.3rem 0.6rem;
  height: 100%;
}
canvas {
  width: 100%;
  height: 100%;
  min-height: 0;
  image-rendering: pixelated;
  border: 1px solid var(--line);
}
.times {
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  text-align: right;
  max-width: 6.5rem;
}
.ticks {
  grid-column: 2;
  position: relative;
  height: 1.3em;
}
.ticks span {
  position: absolute;
  transform: translateX(-50%);
  white-space: nowrap;
}
.key {
  grid-column: 2;
  margin: 0;
}
.key i {
  display: inline-block;
  width: 5rem;
  height: 0.7rem;
  vertical-align: baseline;
  background: linear-gradient(to right, var(--ramp-0), var(--ink));
}
</style>
