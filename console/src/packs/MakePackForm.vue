<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { DashboardSummary, DeviceModel, Rule } from "@/api/types";
import { useAction } from "@/look/act";
import { saveAs } from "@/look/download";
import FormDialog from "@/look/FormDialog.vue";
import { useLoad } from "@/look/load";
import { usePlaces } from "@/places/places";
import { computed, reactive } from "vue";

/** Chooses what goes into a pack, and downloads it. */
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const { busy, error, run } = useAction();
const { data: all, error: notLoaded } = useLoad(async () => {
  const [rules, dashboards, models] = await Promise.all([
    api.get<Rule[]>("rules"),
    api.get<DashboardSummary[]>("dashboards"),
    api.get<DeviceModel[]>("models"),
  ]);
  return { rules, dashboards, models };
});
const form = reactive({
  name: "",
  about: "",
  rule: [] as string[],
  dashboard: [] as string[],
  limitSet: [] as string[],
  model: [] as string[],
});
/** What can go into a pack; shipped limit sets are there at the other end too. */
const kinds = computed(() =>
  [
    { of: "rule" as const, title: t("Rules"), all: all.value?.rules ?? [] },
    { of: "dashboard" as const, title: t("Dashboards"), all: all.value?.dashboards ?? [] },
    {
      of: "limitSet" as const,
      title: t("Limit sets"),
      all: places.limits.filter((set) => !set.shipped).map((set) => ({ id: set.id, name: set.title })),
    },
    { of: "model" as const, title: t("Device models"), all: all.value?.models ?? [] },
  ].filter((kind) => kind.all.length),
);
const chosen = computed(() => form.rule.length + form.dashboard.length + form.limitSet.length + form.model.length);

async function make() {
  const query = new URLSearchParams({ name: form.name, about: form.about });
  kinds.value.forEach(({ of }) => form[of].forEach((id) => query.append(of, id)));
  const done = await run(async () => {
    const text = await api.text("packs/file?" + query);
    saveAs(new Blob([text], { type: "application/yaml" }), form.name + ".yaml");
  }, t("The pack is downloaded."));
  if (done) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Make a pack')"
    :save-label="t('Download pack')"
    :error="error ?? notLoaded"
    :busy="busy"
    :disabled="!form.name.trim() || !chosen"
    @save="make"
    @close="emit('close')"
  >
    <el-form-item :label="t('Name')" for="pack-name"
      ><el-input id="pack-name" v-model="form.name" maxlength="120"
    /></el-form-item>
    <el-form-item :label="t('Description')" for="pack-about"
      ><el-input id="pack-about" v-model="form.about" maxlength="500" :placeholder="t('What it is for')"
    /></el-form-item>
    <el-form-item v-for="kind in kinds" :key="kind.of" :label="kind.title" :for="`pack-${kind.of}`">
      <el-select
        :id="`pack-${kind.of}`"
        v-model="form[kind.of]"
        multiple
        filterable
        :aria-label="kind.title"
        :placeholder="t('none')"
      >
        <el-option v-for="one in kind.all" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <p class="soft small">
      {{
        t("Limit sets that apply to what the rules and dashboards are about are included. E-mail addresses are not.")
      }}
    </p>
  </FormDialog>
</template>
