<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Device } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { reactive } from "vue";

/** Gives a device another name, or moves it to another place. */
const { device } = defineProps<{ device: Device }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const form = reactive({ name: device.name, placeId: device.placeId });
const version = useVersion("devices/" + device.id);
const { busy, error, run } = useAction();

async function save() {
  if (await run(async () => api.put("devices/" + device.id, form, await version()), t("Saved."))) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Change {name}', { name: device.name })"
    :error="error"
    :busy="busy"
    :disabled="!form.name.trim()"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Name')" for="device-name"
      ><el-input id="device-name" v-model="form.name" maxlength="80"
    /></el-form-item>
    <el-form-item :label="t('Location')" for="device-place">
      <el-select id="device-place" v-model="form.placeId" filterable :aria-label="t('Location')">
        <el-option v-for="place in places.editable" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
    </el-form-item>
    <p class="soft small">{{ t("Its points stay where they are; move them on their own pages.") }}</p>
  </FormDialog>
</template>
