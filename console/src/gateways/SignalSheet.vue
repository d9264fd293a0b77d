<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import type { Device, RadioState, Signal } from "@/api/types";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import { defineAsyncComponent, watch } from "vue";
import { span } from "@/devices/power";

/** How a device is heard, over time, and what network and device have agreed on. */
const { device } = defineProps<{ device: Device }>();
const SignalChart = defineAsyncComponent(() => import("./SignalChart.vue"));
const { data: signal, load } = useLoad(() => api.get<Signal>(`devices/${device.id}/signal`));
const { data: radio, load: loadRadio } = useLoad(() => api.get<RadioState | undefined>(`devices/${device.id}/radio`));
watch(
  () => [device.id, device.counter],
  () => (load(), loadRadio()),
);
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Radio") }}</h2>
    <template v-if="signal?.frames.length">
      <SignalChart :frames="signal.frames" class="chart" />
      <dl class="facts">
        <div>
          <dt>{{ t("Lost of the newest {frames}", { frames: signal.frames.length }) }}</dt>
          <dd>{{ signal.lostPercent === null ? "–" : fixed(signal.lostPercent, 1) + " %" }}</dd>
        </div>
        <div>
          <dt>{{ t("Joined, restarted") }}</dt>
          <dd>{{ signal.joins }}, {{ signal.restarts }}</dd>
        </div>
        <div>
          <dt>{{ t("On the air") }}</dt>
          <dd>{{ t("{airSecondsADay} s a day", { airSecondsADay: fixed(signal.airSecondsADay, 1) }) }}</dd>
        </div>
        <div v-if="signal.monthsLeft !== null">
          <dt>{{ t("Battery lasts") }}</dt>
          <dd>{{ span(signal.monthsLeft) }}</dd>
        </div>
      </dl>
    </template>
    <p v-else class="soft">{{ t("No data was heard yet.") }}</p>
    <details v-if="radio">
      <summary>{{ t("MAC state") }}</summary>
      <dl class="facts">
        <div>
          <dt>{{ t("Band") }}</dt>
          <dd>{{ radio.region }}</dd>
        </div>
        <div>
          <dt>{{ t("Address now") }}</dt>
          <dd class="mono">{{ radio.devAddr }}</dd>
        </div>
        <div>
          <dt>{{ t("Data rate") }}</dt>
          <dd>
            {{
              t("{dataRate}, {txPowerDbm} dBm at most", {
                dataRate: radio.dataRate ?? t("it chooses itself"),
                txPowerDbm: radio.txPowerDbm,
              })
            }}
          </dd>
        </div>
        <div>
          <dt>{{ t("Each frame") }}</dt>
          <dd>
            {{ t("once | {n} times", { n: radio.repetitions }) }}
          </dd>
        </div>
        <div>
          <dt>{{ t("Listens") }}</dt>
          <dd>
            {{
              t("{always} {rx1DelaySeconds} s after it sent, then at {rx2Mhz} MHz, {rx2DataRate}", {
                always: radio.alwaysListens ? t("always;") : "",
                rx1DelaySeconds: radio.rx1DelaySeconds,
                rx2Mhz: radio.rx2Mhz,
                rx2DataRate: radio.rx2DataRate,
              })
            }}
          </dd>
        </div>
        <div>
          <dt>{{ t("More channels") }}</dt>
          <dd>{{ radio.extraChannelsMhz.join(", ") || t("none") }}</dd>
        </div>
        <div v-if="radio.subBandChosen !== null">
          <dt>{{ t("Sub-band") }}</dt>
          <dd>{{ radio.subBandChosen ? t("sent to the device") : t("not sent to the device yet") }}</dd>
        </div>
        <div>
          <dt>{{ t("It says of itself") }}</dt>
          <dd>
            <template v-if="radio.statusAt">{{
              t("battery {batteryWords}, hears with {heardMarginDb} dB to spare, {moment}", {
                batteryWords: radio.batteryWords,
                heardMarginDb: radio.heardMarginDb,
                moment: moment(radio.statusAt),
              })
            }}</template><template v-else>{{ t("nothing yet") }}</template>
          </dd>
        </div>
        <div>
          <dt>{{ t("Counters") }}</dt>
          <dd>{{ t("{lastUp} up, {nextDown} down", { lastUp: radio.lastUp, nextDown: radio.nextDown }) }}</dd>
        </div>
        <div v-if="radio.asked.length">
          <dt>{{ t("Waiting for acknowledgement of") }}</dt>
          <dd>{{ radio.asked.join(", ") }}</dd>
        </div>
      </dl>
      <p v-if="radio.refused" class="small refused">
        {{ t("It {refused}.", { refused: radio.refused.replace(/^it /, "") }) }}
      </p>
    </details>
  </section>
</template>

<style scoped>
.chart {
  height: 200px;
}
.facts {
  margin: 0.5rem 0;
  display: grid;
  gap: 0.6rem 1.5rem;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
}
dt {
  font-size: 0.82rem;
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.refused {
  color: var(--warning);
}
</style>
