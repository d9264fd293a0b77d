<script setup lang="ts">
import { said, t } from "@/language";
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
  if (await run(() => api.post("notices/acknowledgement", { token }), t("Alert acknowledged."))) {
    await alert.load();
  }
}
</script>

<template>
  <DoorSheet :title="t('Acknowledge an alert')">
    <template v-if="alert.data.value">
      <p class="what">
        <FenceMark :severity="alert.data.value.severity" />
        <strong>{{ alert.data.value.summary }}</strong>
      </p>
      <p class="soft">
        {{
          t("{severity}, since {moment}; {state}", {
            severity: said(alert.data.value.severity),
            moment: moment(alert.data.value.raisedAt),
            state: STATES[alert.data.value.state],
          })
        }}
      </p>
      <p v-if="alert.data.value.acknowledgedBy" role="status">
        {{ t("Acknowledged by {acknowledgedBy}", { acknowledgedBy: alert.data.value.acknowledgedBy })
        }}<template v-if="alert.data.value.acknowledgedAt">, {{ moment(alert.data.value.acknowledgedAt) }}</template
        >.
      </p>
      <template v-else>
        <ProblemNote :error="error" />
        <el-button type="primary" size="large" :loading="busy" @click="acknowledge">{{ t("Acknowledge") }}</el-button>
      </template>
    </template>
    <ProblemNote v-else :error="alert.error.value" />
    <p>
      <RouterLink to="/alerts">{{ t("Open all alerts") }}</RouterLink> {{ t("(needs a sign-in)") }}
    </p>
  </DoorSheet>
</template>

<style scoped>
.what {
  display: flex;
  gap: 0.6rem;
  align-items: start;
}
</style>
