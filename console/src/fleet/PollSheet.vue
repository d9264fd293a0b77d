<script setup lang="ts">
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Poll } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref, watch } from "vue";

/** The devices of an inlet that are asked: raw words beside what they say, how long a round takes, and what went wrong. */
const { inletId, mayOperate } = defineProps<{ inletId: string; mayOperate: boolean }>();
const open = ref("");
const { data: polls, error, load } = useLoad(() => api.get<Poll[]>(`inlets/${inletId}/polls`));
const action = useAction();
watch(
  () => inletId,
  () => void load(),
);
onChanged(["registry"], load);
every(3, () => void load());

const change = (poll: Poll, paused: boolean, everySeconds: number | null) =>
  action.run(() => api.put(`devices/${poll.deviceId}/polling`, { paused, everySeconds }).then(load));
const words = (data: string, table: string) =>
  (data.match(table === "coil" || table === "discrete" ? /../g : /..../g) ?? []).join(" ");
</script>

<template>
  <section class="sheet">
    <h2>Devices that are asked</h2>
    <ProblemNote :error="error ?? action.error.value" />
    <table v-if="polls?.length" class="rows cards">
      <thead>
        <tr>
          <th>Device</th>
          <th>Every</th>
          <th>Asked</th>
          <th class="num">Takes</th>
          <th class="num">Late</th>
          <th>Read</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="poll in polls" :key="poll.deviceId">
          <tr>
            <td>
              <RouterLink :to="`/fleet/devices/${poll.deviceId}`">{{ poll.deviceName }}</RouterLink>
              <div class="soft small mono">{{ poll.address }}</div>
            </td>
            <td>
              <el-input-number
                v-if="mayOperate"
                :model-value="poll.everySeconds"
                :min="1"
                :max="86400"
                :controls="false"
                class="every"
                :aria-label="'Seconds between two rounds of ' + poll.deviceName"
                @change="(seconds: number | undefined) => change(poll, poll.paused, seconds ?? null)"
              />
              <template v-else>{{ poll.everySeconds }}</template> s
            </td>
            <td>{{ poll.paused ? "paused" : age(poll.at, now) }}</td>
            <td class="num">{{ poll.rounds ? poll.tookMillis + " ms" : "" }}</td>
            <td class="num">{{ poll.rounds ? `${poll.late} of ${poll.rounds}` : "" }}</td>
            <td class="small wide">
              <div class="mono">{{ poll.values }}</div>
              <div v-if="poll.problem" class="problem">{{ poll.problem }}</div>
            </td>
            <td>
              <el-button
                v-if="poll.blocks.length"
                link
                type="primary"
                @click="open = open === poll.deviceId ? '' : poll.deviceId"
                >Words</el-button
              >
              <el-button v-if="mayOperate" link type="primary" @click="change(poll, !poll.paused, poll.everySeconds)">{{
                poll.paused ? "Ask again" : "Stop asking"
              }}</el-button>
            </td>
          </tr>
          <tr v-if="open === poll.deviceId">
            <td colspan="7" class="mono small words">
              <div v-for="block in poll.blocks" :key="block.table + block.from">
                <span class="soft">{{ block.table }} {{ block.from }}</span> {{ words(block.data, block.table) }}
              </div>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <p v-else-if="polls" class="soft">None yet: bring a device in, choose this inlet, and give its address.</p>
  </section>
</template>

<style scoped>
.every {
  width: 4.5rem;
}
.problem {
  color: var(--warning);
}
.words {
  overflow-wrap: anywhere;
}
</style>
