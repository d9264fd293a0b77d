<script setup lang="ts">
import { api } from "@/api/http";
import type { AccessReason, Place } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";

/** Who has access to a place, with which permission, and why. */
const { place } = defineProps<{ place: Place }>();
const emit = defineEmits<{ close: [] }>();
const { data, error } = useLoad(() => api.get<AccessReason[]>(`places/${place.id}/people`));
const RIGHTS = { look: "may look", operate: "may operate", edit: "may edit", manage: "manages" };

function by(reason: AccessReason): string {
  return reason.group ? `, by group ${reason.group}` : "";
}

function why(reason: AccessReason): string {
  switch (reason.why) {
    case "owner":
      return "owner of this instance";
    case "grant-here":
      return "permission on this place";
    case "grant-above":
      return `permission on ${reason.targetName}, which this place belongs to`;
    case "grant-on-part":
      return `permission on ${reason.targetName} only`;
  }
}
</script>

<template>
  <el-dialog model-value :title="`Who has access to ${place.name}`" @close="emit('close')">
    <ProblemNote :error="error" />
    <table v-if="data?.length" class="rows">
      <thead>
        <tr>
          <th>Person</th>
          <th>Permission</th>
          <th>Reason</th>
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
    <EmptyState v-else-if="data" title="Nobody" />
    <p class="soft small">
      Permissions are changed under <RouterLink to="/people">People</RouterLink>. Points that are not released are shown
      only to people who may edit.
    </p>
    <template #footer><el-button @click="emit('close')">Close</el-button></template>
  </el-dialog>
</template>
