<script setup lang="ts">
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
    <h2>Radio</h2>
    <template v-if="signal?.frames.length">
      <SignalChart :frames="signal.frames" class="chart" />
      <dl class="facts">
        <div>
          <dt>Lost of the newest {{ signal.frames.length }}</dt>
          <dd>{{ signal.lostPercent === null ? "–" : signal.lostPercent.toFixed(1) + " %" }}</dd>
        </div>
        <div>
          <dt>Joined, restarted</dt>
          <dd>{{ signal.joins }}, {{ signal.restarts }}</dd>
        </div>
        <div>
          <dt>On the air</dt>
          <dd>{{ signal.airSecondsADay.toFixed(1) }} s a day</dd>
        </div>
        <div v-if="signal.monthsLeft !== null">
          <dt>Battery lasts</dt>
          <dd>{{ span(signal.monthsLeft) }}</dd>
        </div>
      </dl>
    </template>
    <p v-else class="soft">No data was heard yet.</p>
    <details v-if="radio">
      <summary>MAC state</summary>
      <dl class="facts">
        <div>
          <dt>Band</dt>
          <dd>{{ radio.region }}</dd>
        </div>
        <div>
          <dt>Address now</dt>
          <dd class="mono">{{ radio.devAddr }}</dd>
        </div>
        <div>
          <dt>Data rate</dt>
          <dd>{{ radio.dataRate ?? "it chooses itself" }}, {{ radio.txPowerDbm }} dBm at most</dd>
        </div>
        <div>
          <dt>Each frame</dt>
          <dd>{{ radio.repetitions === 1 ? "once" : radio.repetitions + " times" }}</dd>
        </div>
        <div>
          <dt>Listens</dt>
          <dd>
            {{ radio.alwaysListens ? "always;" : "" }} {{ radio.rx1DelaySeconds }} s after it sent, then at
            {{ radio.rx2Mhz }} MHz, {{ radio.rx2DataRate }}
          </dd>
        </div>
        <div>
          <dt>More channels</dt>
          <dd>{{ radio.extraChannelsMhz.join(", ") || "none" }}</dd>
        </div>
        <div v-if="radio.subBandChosen !== null">
          <dt>Sub-band</dt>
          <dd>{{ radio.subBandChosen ? "sent to the device" : "not sent to the device yet" }}</dd>
        </div>
        <div>
          <dt>It says of itself</dt>
          <dd>
            <template v-if="radio.statusAt"
              >battery {{ radio.batteryWords }}, hears with {{ radio.heardMarginDb }} dB to spare,
              {{ moment(radio.statusAt) }}</template
            ><template v-else>nothing yet</template>
          </dd>
        </div>
        <div>
          <dt>Counters</dt>
          <dd>{{ radio.lastUp }} up, {{ radio.nextDown }} down</dd>
        </div>
        <div v-if="radio.asked.length">
          <dt>Waiting for acknowledgement of</dt>
          <dd>{{ radio.asked.join(", ") }}</dd>
        </div>
      </dl>
      <p v-if="radio.refused" class="small refused">It {{ radio.refused.replace(/^it /, "") }}.</p>
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
