<script setup lang="ts">
import { api } from "@/api/http";
import type { Alert } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import LinkedText from "@/look/LinkedText.vue";
import { usePlaces } from "@/places/places";
import ProblemNote from "@/look/ProblemNote.vue";

/** What to do about an alert; its steps are ticked off by who may operate. */
const { alert, mayAct } = defineProps<{ alert: Alert; mayAct: boolean }>();
const emit = defineEmits<{ changed: [alert: Alert] }>();
const places = usePlaces();
const { busy, error, run } = useAction();

async function tick(number: number, done: boolean) {
  await run(async () => emit("changed", await api.put<Alert>(`alerts/${alert.id}/instructions/${number}`, { done })));
}
</script>

<template>
  <ul>
    <li v-for="(line, i) in alert.instructions" :key="i">
      <el-checkbox
        v-if="line.number"
        :model-value="line.doneAt !== null"
        :disabled="!mayAct || busy"
        @update:model-value="(done: unknown) => tick(line.number, done === true)"
      >
        <span :class="{ soft: line.doneAt }"><LinkedText :text="line.text" /></span>
        <span v-if="line.doneAt" class="soft small">
          · {{ line.doneBy }}, {{ moment(line.doneAt, places.zoneOf(alert.placeId)) }}</span
        >
      </el-checkbox>
      <span v-else><LinkedText :text="line.text" /></span>
    </li>
  </ul>
  <ProblemNote :error="error" />
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 0.15rem 0;
}
.el-checkbox {
  height: auto;
  min-height: 2rem;
  white-space: normal;
}
</style>
