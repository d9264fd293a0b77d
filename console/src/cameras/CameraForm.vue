<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Camera } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import { useCamera } from "./cameras";

/** Sets up a camera, or changes one; once saved its picture is shown. */
const { camera } = defineProps<{ camera?: Camera }>();
const emit = defineEmits<{ close: [saved: boolean] }>();
const places = usePlaces();
const { busy, error, run } = useAction();
const saved = ref<Camera | undefined>(camera);
const isSaved = ref(false);
const draft = ref({
  name: camera?.name ?? "",
  placeId: camera?.placeId ?? "",
  address: camera?.address ?? "",
  user: camera?.user ?? "",
  password: "",
  everySeconds: camera?.everySeconds ?? 10,
});
const shown = ref(camera?.id ?? "");
const { source, error: noPicture } = useCamera(() => shown.value || undefined);
const losesPassword = computed(() => saved.value?.hasPassword && draft.value.address !== saved.value.address);

async function save() {
  const request = { ...draft.value, user: draft.value.user || null, password: draft.value.password || null };
  const done = await run(async () => {
    shown.value = "";
    saved.value = await (saved.value
      ? api.put<Camera>("cameras/" + saved.value.id, request)
      : api.post<Camera>("cameras", request));
    shown.value = saved.value.id;
    draft.value.password = "";
  });
  if (done) {
    isSaved.value = true;
  }
}
</script>

<template>
  <FormDialog
    :title="camera ? t('Change {name}', { name: camera.name }) : t('Add camera')"
    :save-label="t('Save and look')"
    :error="error"
    :busy="busy"
    :disabled="!draft.name.trim() || !draft.placeId || !draft.address"
    :cancel-label="isSaved ? t('Close') : t('Cancel')"
    @save="save"
    @close="emit('close', isSaved)"
  >
    <el-form-item :label="t('Name')" for="camera-name"
      ><el-input id="camera-name" v-model="draft.name" maxlength="80" :placeholder="t('Whey room')"
    /></el-form-item>
    <el-form-item :label="t('Place that it looks at')" for="camera-place">
      <el-select id="camera-place" v-model="draft.placeId" filterable :aria-label="t('Place that it looks at')">
        <el-option v-for="one in places.places" :key="one.id" :value="one.id" :label="places.label(one)" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Address of one picture (JPEG or PNG)')" for="camera-address"
      ><el-input id="camera-address" v-model="draft.address" type="url" placeholder="http://192.168.1.40/picture.jpg"
    /></el-form-item>
    <div class="form-grid">
      <el-form-item :label="t('User (if it asks for one)')" for="camera-user"
        ><el-input id="camera-user" v-model="draft.user" autocomplete="off"
      /></el-form-item>
      <PasswordField
        id="camera-password"
        v-model="draft.password"
        chosen
        :label="saved?.hasPassword && !losesPassword ? t('Password (empty to keep it)') : t('Password')"
      />
      <el-form-item :label="t('New picture every, s')" for="camera-every"
        ><el-input-number id="camera-every" v-model="draft.everySeconds" :min="2" :max="3600" :controls="false"
      /></el-form-item>
    </div>
    <p v-if="losesPassword" class="soft small">{{ t("Another address: enter the password again.") }}</p>
    <ProblemNote :error="noPicture" />
    <img v-if="source" :src="source" :alt="t('What the camera shows now')" />
  </FormDialog>
</template>

<style scoped>
img {
  display: block;
  max-width: 100%;
  max-height: 40vh;
}
</style>
