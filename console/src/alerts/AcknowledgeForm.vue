<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Alert } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { ref } from "vue";
import { useAlerts } from "./alerts";

/** Takes an alert on, with a note if there is something to say. */
const { alert } = defineProps<{ alert: Alert }>();
const emit = defineEmits<{ close: [] }>();
const alerts = useAlerts();
const text = ref("");
const { busy, error, run } = useAction();

async function acknowledge() {
  await run(async () => {
    const after = await api.post<Alert>(`alerts/${alert.id}/acknowledgement`, { text: text.value || null });
    // Before the alert may leave the list, and this form with it.
    emit("close");
    alerts.take(after);
  }, t("Acknowledged."));
}
</script>

<template>
  <FormDialog
    :title="t('Acknowledge alert')"
    :save-label="t('Acknowledge')"
    :error="error"
    :busy="busy"
    @save="acknowledge"
    @close="emit('close')"
  >
    <p>{{ alert.summary }}</p>
    <el-form-item :label="t('What did you find, or what will you do? (may be empty)')" for="ack-note">
      <el-input id="ack-note" v-model="text" type="textarea" :rows="3" autofocus />
    </el-form-item>
  </FormDialog>
</template>
