<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Camera } from "@/api/types";
import CameraForm from "@/cameras/CameraForm.vue";
import { useAction } from "@/look/act";
import ConfirmButton from "@/look/ConfirmButton.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";

/** Cameras whose pictures can stand on dashboards. */
const cameras = useLoad(() => api.get<Camera[]>("cameras"));
const open = ref<Camera | "new" | "">("");
const { error, run } = useAction();

async function closed(saved: boolean) {
  open.value = "";
  if (saved) {
    await cameras.load();
  }
}

async function remove(camera: Camera) {
  await run(() => api.remove("cameras/" + camera.id), t("{name} is removed.", { name: camera.name }));
  await cameras.load();
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Cameras") }}</h2>
      <el-button @click="open = 'new'">{{ t("Add camera") }}</el-button>
    </div>
    <p class="soft">
      {{
        t(
          "A dashboard shows the picture of a camera beside readings. This service fetches it, so that the people who look need neither a way to the camera nor its password. Everyone with access to the place of a camera can see its picture.",
        )
      }}
    </p>
    <ProblemNote :error="cameras.error.value" />
    <p v-if="cameras.data.value && !cameras.data.value.length" class="soft">{{ t("No cameras yet.") }}</p>
    <div v-for="one in cameras.data.value" :key="one.id" class="row camera">
      <strong>{{ one.name }}</strong>
      <RouterLink :to="`/places/${one.placeId}`">{{ one.placeName }}</RouterLink>
      <span class="soft small address">{{
        t("{address}, every {everySeconds} s", { address: one.address, everySeconds: one.everySeconds })
      }}</span>
      <span v-if="one.problem" class="tried-failed small">{{ one.problem }}</span>
      <span class="acts">
        <el-button link type="primary" :aria-label="t('Change {name}', { name: one.name })" @click="open = one">{{
          t("Change")
        }}</el-button>
        <ConfirmButton :says="t('Its address and password are forgotten.')" link @confirm="remove(one)" />
      </span>
    </div>
    <ProblemNote :error="error" />
    <CameraForm v-if="open" :camera="open === 'new' ? undefined : open" @close="closed" />
  </section>
</template>

<style scoped>
.camera {
  flex-wrap: wrap;
  min-height: 2.75rem;
}
.address {
  overflow-wrap: anywhere;
}
.acts {
  margin-left: auto;
}
</style>
