<script setup lang="ts">
import { api } from "@/api/http";
import type { MailedAlert } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import DoorSheet from "@/shell/DoorSheet.vue";
import { useRoute } from "vue-router";
import { STATES } from "./states";

/** Who reads a notice on the phone acknowledges here without signing in. The code stands behind the #. */
const token = useRoute().hash.slice(1);
const alert = useLoad(() => api.post<MailedAlert>("notices/alert", { token }));
const { busy, error, run } = useAction();

async function acknowledge() {
  if (await run(() => api.post("notices/acknowledgement", { token }), "Alert acknowledged.")) {
    await alert.load();
  }
}
</script>

<template>
  <DoorSheet title="Acknowledge an alert">
    <template v-if="alert.data.value">
      <p class="what">
        <FenceMark :severity="alert.data.value.severity" />
        <strong>{{ alert.data.value.summary }}</strong>
      </p>
      <p class="soft">
        {{ alert.data.value.severity }}, since {{ moment(alert.data.value.raisedAt) }};
        {{ STATES[alert.data.value.state] }}
      </p>
      <p v-if="alert.data.value.acknowledgedBy" role="status">
        Acknowledged by {{ alert.data.value.acknowledgedBy
        }}<template v-if="alert.data.value.acknowledgedAt">, {{ moment(alert.data.value.acknowledgedAt) }}</template
        >.
      </p>
      <template v-else>
        <ProblemNote :error="error" />
        <el-button type="primary" size="large" :loading="busy" @click="acknowledge">Acknowledge</el-button>
      </template>
    </template>
    <ProblemNote v-else :error="alert.error.value" />
    <p><RouterLink to="/alerts">Open all alerts</RouterLink> (needs a sign-in)</p>
  </DoorSheet>
</template>

<style scoped>
.what {
  display: flex;
  gap: 0.6rem;
  align-items: start;
}
</style>
