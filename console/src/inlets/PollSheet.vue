<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Poll } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref, watch } from "vue";

/** The polled devices of an inlet: raw words beside what they say, how long a round takes, and what went wrong. */
const { inletId, mayOperate, canLetGo, devices } = defineProps<{
  inletId: string;
  mayOperate: boolean;
  canLetGo: boolean;
  devices?: string[];
}>();
const open = ref("");
const {
  data: polls,
  error,
  load,
} = useLoad(async () =>
  (await api.get<Poll[]>(`inlets/${inletId}/polls`)).filter((poll) => !devices || devices.includes(poll.deviceId)),
);
const action = useAction();
watch(
  () => inletId,
  () => void load(),
);
onChanged(["registry"], load);
every(3, () => void load());

const change = (poll: Poll, paused: boolean, everySeconds: number | null) =>
  action.run(() => api.put(`devices/${poll.deviceId}/polling`, { paused, everySeconds }).then(load));
const wanted = ref<Record<string, number | undefined>>({});
const set = (poll: Poll, channel: string, value: number | null) =>
  action.run(
    () => api.put(`devices/${poll.deviceId}/channels/${channel}`, { value }).then(load),
    value === null ? t("{channel} was let go.", { channel }) : t("{channel} was set.", { channel }),
  );
const keyOf = (poll: Poll) => `${poll.deviceId}/${poll.group ?? ""}`;
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Polled devices") }}</h2>
    <ProblemNote :error="error ?? action.error.value" />
    <table v-if="polls?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Device") }}</th>
          <th>{{ t("Every") }}</th>
          <th>{{ t("Asked") }}</th>
          <th class="num">{{ t("Takes") }}</th>
          <th class="num">{{ t("Late") }}</th>
          <th>{{ t("Read") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="poll in polls" :key="keyOf(poll)">
          <tr>
            <td>
              <RouterLink :to="`/fleet/devices/${poll.deviceId}`">{{ poll.deviceName }}</RouterLink>
              <div class="soft small mono">{{ poll.address }}</div>
            </td>
            <td class="period">
              <el-input-number
                v-if="mayOperate && poll.group === null"
                :model-value="poll.everySeconds"
                :min="1"
                :max="86400"
                :controls="false"
                class="every"
                :aria-label="t('Seconds between two rounds of {deviceName}', { deviceName: poll.deviceName })"
                @change="(seconds: number | undefined) => change(poll, poll.paused, seconds ?? null)"
              />
              <template v-else>{{ poll.everySeconds }}</template> s
            </td>
            <td :data-name="t('Asked')">{{ poll.paused ? t("paused") : age(poll.at, now) }}</td>
            <td class="num" :data-name="t('Takes')">
              {{ poll.rounds ? t("{tookMillis} ms", { tookMillis: poll.tookMillis }) : "" }}
            </td>
            <td class="num" :data-name="t('Late')">
              {{ poll.rounds ? t("{late} of {rounds}", { late: poll.late, rounds: poll.rounds }) : "" }}
            </td>
            <td class="small wide">
              <div class="mono">{{ poll.values }}</div>
              <div v-if="poll.problem" class="problem">{{ poll.problem }}</div>
            </td>
            <td>
              <el-button
                v-if="poll.rows.length"
                link
                type="primary"
                @click="open = open === keyOf(poll) ? '' : keyOf(poll)"
                >{{ t("Channels") }}</el-button
              >
              <el-button
                v-if="mayOperate && poll.group === null"
                link
                type="primary"
                @click="change(poll, !poll.paused, poll.everySeconds)"
                >{{ poll.paused ? t("Ask again") : t("Stop asking") }}</el-button
              >
            </td>
          </tr>
          <tr v-if="open === keyOf(poll)">
            <td colspan="7">
              <table class="rows channels">
                <thead>
                  <tr>
                    <th>{{ t("Channel") }}</th>
                    <th>{{ t("Where") }}</th>
                    <th>{{ t("Read") }}</th>
                    <th class="num">{{ t("Value") }}</th>
                    <th v-if="mayOperate && poll.rows.some((row) => row.settable)">{{ t("Set to") }}</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="row in poll.rows" :key="row.channel">
                    <td class="mono small">{{ row.channel }}</td>
                    <td class="soft small">{{ row.where }}</td>
                    <td class="mono small raw">{{ row.raw || t("not read") }}</td>
                    <td class="num">{{ row.value === null ? "" : Number(row.value.toFixed(4)) }}</td>
                    <td v-if="mayOperate && poll.rows.some((one) => one.settable)">
                      <form v-if="row.settable" class="row" @submit.prevent>
                        <el-input-number
                          v-model="wanted[row.channel]"
                          :controls="false"
                          class="every"
                          :aria-label="t('New value of {channel}', { channel: row.channel })"
                        />
                        <el-button
                          native-type="submit"
                          :disabled="wanted[row.channel] === undefined || wanted[row.channel] === null"
                          :loading="action.busy.value"
                          @click="set(poll, row.channel, wanted[row.channel] ?? null)"
                          >{{ t("Set") }}</el-button
                        >
                        <el-button v-if="canLetGo" link type="primary" @click="set(poll, row.channel, null)">{{
                          t("Release (back to automatic control)")
                        }}</el-button>
                      </form>
                    </td>
                  </tr>
                </tbody>
              </table>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <p v-else-if="polls" class="soft">
      {{ t("None yet: bring a device in, choose this inlet, and give its address.") }}
    </p>
  </section>
</template>

<style scoped>
.period {
  white-space: nowrap;
}
.every {
  width: 4.5rem;
}
.problem {
  color: var(--warning);
}
.raw {
  overflow-wrap: anywhere;
}
.channels {
  width: auto;
}
</style>
