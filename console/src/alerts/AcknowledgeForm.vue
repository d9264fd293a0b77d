<script setup lang="ts">
import { api } from "@/api/http";
import type { Alert } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
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
  }, "Acknowledged.");
}
</script>

<template>
  <el-dialog model-value title="Acknowledge alert" @close="emit('close')">
    <p>{{ alert.summary }}</p>
    <el-form label-position="top" @submit.prevent="acknowledge">
      <el-form-item label="What did you find, or what will you do? (may be empty)" for="ack-note">
        <el-input id="ack-note" v-model="text" type="textarea" :rows="3" autofocus />
      </el-form-item>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button type="primary" :loading="busy" @click="acknowledge">Acknowledge</el-button>
    </template>
  </el-dialog>
</template>
