<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { AccessReason, Place } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";

/** Who has access to a place, with which permission, and why. */
const { place } = defineProps<{ place: Place }>();
const emit = defineEmits<{ close: [] }>();
const { data, error } = useLoad(() => api.get<AccessReason[]>(`places/${place.id}/people`));
const RIGHTS = { look: t("may look"), operate: t("may operate"), edit: t("may edit"), manage: "manages" };

function by(reason: AccessReason): string {
  return reason.group ? t(", by group {group}", { group: reason.group }) : "";
}

function why(reason: AccessReason): string {
  switch (reason.why) {
    case "owner":
      return t("owner of this instance");
    case "grant-here":
      return t("permission on this place");
    case "grant-above":
      return t("permission on {targetName}, which this place belongs to", { targetName: reason.targetName });
    case "grant-on-part":
      return t("permission on {targetName} only", { targetName: reason.targetName });
  }
}
</script>

<template>
  <el-dialog model-value :title="t('Who has access to {name}', { name: place.name })" @close="emit('close')">
    <ProblemNote :error="error" />
    <table v-if="data?.length" class="rows">
      <thead>
        <tr>
          <th>{{ t("Person") }}</th>
          <th>{{ t("Permission") }}</th>
          <th>{{ t("Reason") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="reason in data" :key="reason.personId + reason.targetId + reason.group">
          <td>{{ reason.personName }}</td>
          <td>{{ RIGHTS[reason.right] }}</td>
          <td>{{ why(reason) + by(reason) }}</td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="data" :title="t('Nobody')" />
    <p class="soft small">
      {{ t("Permissions are changed under") }} <RouterLink to="/people">{{ t("People") }}</RouterLink>{{
        t(". Points that are not released are shown only to people who may edit.")
      }}
    </p>
    <template #footer
      ><el-button @click="emit('close')">{{ t("Close") }}</el-button></template
    >
  </el-dialog>
</template>
