<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { LimitSet } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { computed, reactive } from "vue";
import LimitTrial from "./LimitTrial.vue";

/** Adjusts the boundaries of a set of one's own; neighbouring zones share theirs. */
const { set, used = 0 } = defineProps<{ set: LimitSet; /** For how many points it holds. */ used?: number }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const { busy, error, run } = useAction();
const version = useVersion("limits/" + set.id);
const form = reactive({ title: set.title, boundaries: set.zones.slice(1).map((zone) => zone.from ?? 0) });

const draft = computed<LimitSet>(() => ({
  ...set,
  title: form.title,
  zones: set.zones.map((zone, i) => ({
    ...zone,
    from: i === 0 ? null : (form.boundaries[i - 1] ?? null),
    to: i === set.zones.length - 1 ? null : (form.boundaries[i] ?? null),
  })),
}));

async function save() {
  const ok = await run(async () => {
    await api.put("limits/" + set.id, draft.value, await version());
    await places.load();
  }, t("Saved; it holds at once."));
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Adjust {title}', { title: said(set.title) })"
    :save-label="t('Save')"
    :error="error"
    :busy="busy"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Title')" for="limit-title"
      ><el-input id="limit-title" v-model="form.title"
    /></el-form-item>
    <el-form-item
      v-for="(zone, i) in set.zones.slice(1)"
      :key="zone.label"
      :label="`${said(set.zones[i]?.label ?? '')} | ${said(zone.label)}, ${set.unit}`"
    >
      <el-input-number
        v-model="form.boundaries[i]"
        :controls="false"
        :aria-label="t('Boundary to {label}', { label: said(zone.label) })"
      />
    </el-form-item>
    <LimitTrial :set="draft" :somewhere="!used" />
  </FormDialog>
</template>
