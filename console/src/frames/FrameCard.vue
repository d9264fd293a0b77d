<script setup lang="ts">
import { t } from "@/language";
import type { Frame } from "@/api/types";
import { moment } from "@/look/clock";
import { computed, ref } from "vue";
import { asText } from "./bytes";

/** One frame: what it was, how it was heard, its bytes, and what was read from it or why not. */
const { frame } = defineProps<{ frame: Frame }>();
const open = ref(false);
const toDevice = computed(() => frame.kind === "downlink" || frame.kind === "join accept");
const word = computed(() =>
  frame.outcome === "repeated" ? "repeated" : frame.accepted ? "" : toDevice.value ? t("not sent") : "refused",
);
const refused = computed(() => frame.outcome === "refused");
const text = computed(() => asText(frame.payload || frame.bytes));
</script>

<template>
  <article class="frame" :class="{ refused }">
    <div class="row head">
      <span class="soft time">{{ moment(frame.time) }}</span>
      <strong>{{ frame.deviceName ?? frame.address ?? t("unknown") }}</strong>
      <span>{{ frame.kind }}{{ frame.counter >= 0 ? ` ${frame.counter}` : "" }}</span>
      <span v-if="word" :class="refused ? 'word' : 'soft'">{{ word }}</span>
      <RouterLink v-if="frame.inletId" class="small" :to="`/fleet/inlets/${frame.inletId}`">{{
        frame.inletName ?? t("inlet")
      }}</RouterLink>
      <span v-for="one in frame.heard" :key="one.gatewayEui" class="soft small">{{
        `${one.gatewayName ?? one.gatewayEui} ${one.rssiDbm} dBm ${one.snrDb} dB ${one.dataRate}`
      }}</span>
      <button type="button" class="more" :aria-expanded="open" @click="open = !open">
        {{ open ? t("less") : t("bytes") }}
      </button>
    </div>
    <div v-if="frame.text" class="mono message" :class="{ folded: !open }">{{ frame.text }}</div>
    <div v-if="frame.values" class="mono">{{ frame.values }}</div>
    <div v-if="frame.reason" :class="refused ? 'reason' : 'soft small'">{{ frame.reason }}</div>
    <dl v-if="open" class="mono">
      <template v-if="frame.payload"
        ><dt>{{ frame.port >= 0 ? t("payload, port {port}", { port: frame.port }) : t("payload") }}</dt>
        <dd>{{ frame.payload }}</dd></template
      >
      <dt>{{ toDevice ? t("on the air") : t("as received") }}</dt>
      <dd>{{ frame.bytes }}</dd>
      <template v-if="text && !frame.text"
        ><dt>{{ t("as text") }}</dt>
        <dd>{{ text }}</dd></template
      >
      <template v-if="frame.sentAt"
        ><dt>{{ t("says it was sent") }}</dt>
        <dd>{{ moment(frame.sentAt) }}</dd></template
      >
      <template v-if="toDevice || frame.heard.length"
        ><dt>{{ toDevice ? t("sent") : t("heard") }}</dt>
        <dd>
          {{
            toDevice
              ? frame.reason
              : frame.heard
                  .map((one) =>
                    t("{gatewayEui} {frequencyMhz} MHz", {
                      gatewayEui: one.gatewayEui,
                      frequencyMhz: one.frequencyMhz,
                    }),
                  )
                  .join(", ")
          }}
        </dd></template
      >
    </dl>
  </article>
</template>

<style scoped>
.frame {
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--line);
}
.head {
  gap: 0.2rem 0.75rem;
}
.time {
  min-width: 5rem;
}
.message {
  color: var(--ink-soft);
  overflow-wrap: anywhere;
}
/* A sensor's thousand raw values must not push the other frames off the page; "bytes" shows all of them. */
.folded {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
  line-clamp: 3;
  overflow: hidden;
}
.word,
.reason {
  color: var(--warning);
}
.more {
  margin-left: auto;
  border: 0;
  background: none;
  color: var(--heather);
  font: inherit;
  font-size: 0.9rem;
  cursor: pointer;
  min-height: 28px;
}
dl {
  display: grid;
  grid-template-columns: 9rem minmax(0, 1fr);
  margin: 0.3rem 0 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
</style>
