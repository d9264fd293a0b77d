<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { moment } from "@/look/clock";
import type { SignalFrame } from "@/api/types";
import { colour, dark } from "@/look/appearance";
import { ScatterChart } from "echarts/charts";
import { GridComponent, MarkAreaComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import { computed } from "vue";
import VChart from "vue-echarts";

use([ScatterChart, GridComponent, TooltipComponent, MarkAreaComponent, CanvasRenderer]);

/** The margin of each frame above what the gateway can make out; the strip near zero is where frames get lost. */
const { frames } = defineProps<{ frames: SignalFrame[] }>();
const THIN_DB = 3;

const option = computed(() => {
  void dark.value;
  const soft = colour("ink-soft");
  return {
    animation: false,
    grid: { left: 44, right: 12, top: 26, bottom: 24 },
    tooltip: {
      trigger: "item",
      formatter: (item: { dataIndex: number }) => {
        const frame = frames[item.dataIndex];
        return frame
          ? [
              moment(frame.time),
              t("{marginDb} dB to spare (SNR {snrDb} dB, {rssiDbm} dBm, {dataRate})", {
                marginDb: fixed(frame.marginDb, 1),
                snrDb: frame.snrDb,
                rssiDbm: frame.rssiDbm,
                dataRate: frame.dataRate,
              }),
              frame.gateway + (frame.gateways > 1 ? " " + t("and {count} more", { count: frame.gateways - 1 }) : ""),
            ].join("<br>")
          : "";
      },
    },
    xAxis: {
      type: "time",
      axisLabel: { color: soft, hideOverlap: true },
      axisLine: { lineStyle: { color: colour("line") } },
    },
    yAxis: {
      type: "value",
      name: t("dB to spare"),
      min: (range: { min: number }) => Math.min(0, Math.floor(range.min)),
      nameTextStyle: { color: soft, align: "left" },
      axisLabel: { color: soft },
      splitLine: { lineStyle: { color: colour("line") } },
    },
    series: [
      {
        type: "scatter",
        symbolSize: 5,
        itemStyle: { color: colour("moss") },
        data: frames.map((frame) => [frame.time, frame.marginDb]),
        markArea: {
          silent: true,
          itemStyle: { color: colour("warning-fill"), opacity: 0.5 },
          data: [[{ yAxis: -20 }, { yAxis: THIN_DB }]],
        },
      },
    ],
  };
});
</script>

<template>
  <VChart
    :option="option"
    autoresize
    :aria-label="t('How far each frame was above what the gateway can make out')"
    role="img"
  />
</template>
