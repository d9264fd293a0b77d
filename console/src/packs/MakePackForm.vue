<script setup lang="ts">
import { api } from "@/api/http";
import type { DashboardSummary, DeviceModel, Rule } from "@/api/types";
import { useAction } from "@/look/act";
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
const sets = computed(() => places.limits.filter((set) => !set.shipped));
const chosen = computed(() => form.rule.length + form.dashboard.length + form.limitSet.length + form.model.length);

async function make() {
  const query = new URLSearchParams({ name: form.name, about: form.about });
  for (const kind of ["rule", "dashboard", "limitSet", "model"] as const) {
    form[kind].forEach((id) => query.append(kind, id));
  }
  const done = await run(async () => {
    const text = await api.text("packs/file?" + query);
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type: "application/yaml" }));
    link.download = form.name + ".yaml";
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  }, "The pack is downloaded.");
  if (done) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    title="Make a pack"
    save-label="Download pack"
    :error="error ?? notLoaded"
    :busy="busy"
    :disabled="!form.name.trim() || !chosen"
    @save="make"
    @close="emit('close')"
  >
    <el-form-item label="Name" for="pack-name"
      ><el-input id="pack-name" v-model="form.name" maxlength="120"
    /></el-form-item>
    <el-form-item label="Description" for="pack-about"
      ><el-input id="pack-about" v-model="form.about" maxlength="500" placeholder="What it is for"
    /></el-form-item>
    <el-form-item label="Rules" for="pack-rules">
      <el-select id="pack-rules" v-model="form.rule" multiple filterable aria-label="Rules" placeholder="none">
        <el-option v-for="one in all?.rules" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <el-form-item label="Dashboards" for="pack-dashboards">
      <el-select
        id="pack-dashboards"
        v-model="form.dashboard"
        multiple
        filterable
        aria-label="Dashboards"
        placeholder="none"
      >
        <el-option v-for="one in all?.dashboards" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="sets.length" label="Limit sets" for="pack-sets">
      <el-select id="pack-sets" v-model="form.limitSet" multiple filterable aria-label="Limit sets" placeholder="none">
        <el-option v-for="one in sets" :key="one.id" :value="one.id" :label="one.title" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="all?.models.length" label="Device models" for="pack-models">
      <el-select
        id="pack-models"
        v-model="form.model"
        multiple
        filterable
        aria-label="Device models"
        placeholder="none"
      >
        <el-option v-for="one in all?.models" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <p class="soft small">
      Limit sets that apply to what the rules and dashboards are about are included. E-mail addresses are not.
    </p>
  </FormDialog>
</template>
