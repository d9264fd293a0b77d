<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Place } from "@/api/types";
import { useAction } from "@/look/act";
import ConfirmButton from "@/look/ConfirmButton.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref, useTemplateRef, watch } from "vue";
import PlanEditor from "./PlanEditor.vue";
import PlanPicture from "./PlanPicture.vue";
import { lightened, usePlan } from "./plans";

/** The picture of a place: shown with its marks; taken, marked and removed by who may edit. */
const { place, mayEdit } = defineProps<{ place: Place; mayEdit: boolean }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();
const editing = ref(false);
const input = useTemplateRef<HTMLInputElement>("input");
const has = computed(() => place.picture !== null);
const { data: plan, error: problem, source, load } = usePlan(() => (has.value ? place.id : undefined));
watch(
  () => place.id,
  () => (editing.value = false),
);

async function upload(event: Event) {
  const chosen = event.target as HTMLInputElement;
  const file = chosen.files?.[0];
  if (file) {
    const ok = await run(async () => {
      await api.picture(`places/${place.id}/picture`, await lightened(file));
      await places.load();
      await load();
    }, t("The picture is saved."));
    if (ok && plan.value && !plan.value.marks.length) {
      editing.value = true;
    }
  }
  chosen.value = "";
}

async function remove() {
  await run(async () => {
    await api.remove(`places/${place.id}/picture`);
    await places.load();
  }, t("The picture is removed."));
}

async function closed(saved: boolean) {
  editing.value = false;
  if (saved) {
    await load();
  }
}
</script>

<template>
  <section v-if="has || mayEdit" class="sheet">
    <div class="sheet-head">
      <h2>{{ place.kind === "asset" ? t("Picture") : t("Plan") }}</h2>
      <template v-if="mayEdit && !editing">
        <el-button v-if="plan" @click="editing = true">{{ t("Mark points …") }}</el-button>
        <el-button :loading="busy" @click="input?.click()">{{
          has ? t("Replace picture …") : t("Add picture …")
        }}</el-button>
        <ConfirmButton
          v-if="has"
          :says="t('The picture and its marks are removed. This cannot be undone.')"
          :action="t('Remove picture')"
          @confirm="remove"
        />
        <input
          ref="input"
          type="file"
          accept="image/png,image/jpeg,image/svg+xml"
          class="hidden"
          :aria-label="t('Picture of this place')"
          @change="upload"
        />
      </template>
    </div>
    <ProblemNote :error="has ? (problem ?? error) : error" />
    <p v-if="!has" class="soft">
      {{
        t(
          "A floor plan or a photograph: PNG, JPEG or SVG. Points are marked where they are measured, and show their values.",
        )
      }}
    </p>
    <template v-else-if="plan">
      <PlanEditor v-if="editing" :plan="plan" :source="source(plan)" @close="closed" />
      <PlanPicture v-else :plan="plan" :source="source(plan)" :points="points.byId" :severities="points.severities" />
    </template>
  </section>
</template>

<style scoped>
.hidden {
  display: none;
}
</style>
