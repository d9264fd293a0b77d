<script setup lang="ts">
import { format } from "@/look/reading";
import { t } from "@/language";
import { api } from "@/api/http";
import { asRead } from "@/look/units";
import type { Point, Trace } from "@/api/types";
import { age, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import { computed, watch } from "vue";
import { choice, inputIds } from "./formulas";
import { usePoints } from "./points";
import { calibrationWords, highlight } from "./trace";

/** Where the newest value came from, back to the bytes: value, calibration, channel, frame, gateway. */
const { point } = defineProps<{ point: Point }>();
const trace = useLoad(async () => (point.deviceId ? api.get<Trace>(`points/${point.id}/trace`) : undefined));
const points = usePoints();
const inputs = computed(() => {
  const of = point.formula;
  const ids = !of ? [] : inputIds(of);
  return ids.flatMap((id) => points.byId.get(id) ?? []);
});
watch(() => point.deviceId, trace.load);
watch(() => point.latest?.time, trace.load);
</script>

<template>
  <section v-if="point.formulaText" class="sheet">
    <h2>{{ t("Where this comes from") }}</h2>
    <p>
      {{ t("Derived:") }} <span>{{ point.formulaText }}</span>.
    </p>
    <p v-if="inputs.length" class="soft small">
      {{ t("Inputs:") }}
      <template v-for="(one, i) in inputs" :key="one.id"
        >{{ i ? ", " : "" }}<RouterLink :to="`/points/${one.id}`">{{ choice(one) }}</RouterLink></template
      >
    </p>
  </section>
  <section v-if="trace.data.value" class="sheet">
    <h2>{{ t("Where this comes from") }}</h2>
    <ol>
      <li>
        <span class="soft">{{ t("value") }}</span>
        <span>{{ format(asRead(point).latest?.value, asRead(point).decimals) }} {{ asRead(point).unit }}</span>
      </li>
      <li>
        <span class="soft">{{ t("calibration") }}</span>
        <span
          >{{ calibrationWords(trace.data.value.calibration)
          }}{{ trace.data.value.calibrationIsOverride ? ` ${t("(for this device alone)")}` : "" }}</span
        >
      </li>
      <li>
        <span class="soft">{{ t("channel") }}</span>
        <span
          >{{ t("{channel} of", { channel: trace.data.value.channel }) }}
          <RouterLink :to="`/fleet/devices/${trace.data.value.deviceId}`">{{
            trace.data.value.deviceName
          }}</RouterLink>, {{ trace.data.value.modelName }}</span
        >
      </li>
      <li v-if="trace.data.value.frame">
        <span class="soft">{{ t("frame") }}</span>
        <span>
          <span class="mono">{{ trace.data.value.frame.payload }}</span>
          <span class="soft small">
            {{
              t("counter {counter}, {age}", {
                counter: trace.data.value.frame.counter,
                age: age(trace.data.value.frame.time, now),
              })
            }}</span
          >
          <div class="mono">
            <template v-for="(part, i) in highlight(trace.data.value.frame.values, trace.data.value.channel)" :key="i">
              <mark v-if="part.own">{{ part.text }}</mark><template v-else>{{ part.text }}</template
              >{{ " " }}
            </template>
          </div>
        </span>
      </li>
      <li v-if="trace.data.value.frame?.heard.length">
        <span class="soft">{{ t("gateway") }}</span>
        <span>
          <div v-for="heard in trace.data.value.frame.heard" :key="heard.gatewayEui">
            {{ heard.gatewayName ?? heard.gatewayEui }}
            <span class="soft small">{{
              t("{rssiDbm} dBm, SNR {snrDb} dB, {dataRate}", {
                rssiDbm: heard.rssiDbm,
                snrDb: heard.snrDb,
                dataRate: heard.dataRate,
              })
            }}</span>
          </div>
        </span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 6.5rem minmax(0, 1fr);
  gap: 0.75rem;
  padding: 0.35rem 0;
}
li + li {
  border-top: 1px solid var(--line);
}
mark {
  background: var(--heather-soft);
  color: var(--ink);
  padding: 0 0.2em;
}
</style>
