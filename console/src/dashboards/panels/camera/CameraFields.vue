<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Camera, Panel } from "@/api/types";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { useSession } from "@/shell/session";
import { computed } from "vue";

/** Which camera it shows. */
const panel = defineModel<Panel>({ required: true });
const session = useSession();
const { data: cameras, error } = useLoad(() => api.get<Camera[]>("cameras"));
const chosen = computed({
  get: () => (panel.value.kind === "camera" ? panel.value.cameraId || undefined : undefined),
  set: (id) => (panel.value = { ...panel.value, cameraId: id ?? "" } as Panel),
});
</script>

<template>
  <el-form-item :label="t('Camera')" for="panel-camera">
    <el-select id="panel-camera" v-model="chosen" filterable :aria-label="t('Camera')" :placeholder="t('choose one')">
      <el-option v-for="one in cameras" :key="one.id" :value="one.id" :label="`${one.name} (${one.placeName})`" />
    </el-select>
  </el-form-item>
  <ProblemNote :error="error" />
  <p v-if="cameras && !cameras.length" class="soft small">
    {{ t("No cameras are set up.") }}
    <RouterLink v-if="session.owner" to="/settings/cameras">{{ t("Add one") }}</RouterLink>
    <template v-else>{{ t("An owner adds them under Settings, Cameras.") }}</template>
  </p>
</template>
