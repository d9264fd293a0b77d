<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Alert } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";

/** Sets the rule of an alert aside for a time, or takes it out of service: alerts are recorded, nobody is notified. */
const { alert } = defineProps<{ alert: Alert }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const HOURS = { "1 hour": 1, "4 hours": 4, "8 hours": 8, "1 day": 24, "3 days": 72, "1 week": 168 };
const hours = ref<number | null>(4);
const reason = ref("");
const { busy, error, run } = useAction();
const mayTakeOut = computed(() => places.may("edit", alert.placeId));

async function shelve() {
  const until = hours.value === null ? null : new Date(Date.now() + hours.value * 3_600_000).toISOString();
  const ok = await run(
    () => api.post(`alerts/${alert.id}/shelving`, { until, reason: reason.value }),
    hours.value === null ? t("Out of service.") : t("Shelved."),
  );
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Shelve alert')"
    :save-label="t('Shelve')"
    :error="error"
    :busy="busy"
    :disabled="!reason.trim()"
    @save="shelve"
    @close="emit('close')"
  >
    <p>{{ alert.summary }}</p>
    <p class="soft small">
      {{
        t(
          "The rule “{ruleName}” goes on recording alerts here, but notifies nobody. If it still applies when the time is over, it is announced again.",
          { ruleName: alert.ruleName },
        )
      }}
    </p>
    <el-form-item :label="t('Duration')" for="shelve-hours">
      <el-select
        id="shelve-hours"
        :model-value="hours ?? 'none'"
        :aria-label="t('Duration')"
        @update:model-value="(value: number | string) => (hours = typeof value === 'number' ? value : null)"
      >
        <el-option v-for="(value, text) in HOURS" :key="text" :value="value" :label="text" />
        <el-option v-if="mayTakeOut" value="none" :label="t('Out of service, until somebody ends it')" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Reason')" for="shelve-reason">
      <el-input
        id="shelve-reason"
        v-model="reason"
        maxlength="500"
        :placeholder="t('Pump is being replaced')"
        autofocus
      />
    </el-form-item>
  </FormDialog>
</template>
