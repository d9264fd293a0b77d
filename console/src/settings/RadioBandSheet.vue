<script setup lang="ts">
import { api } from "@/api/http";
import type { RadioSettings, Region } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, reactive, watch } from "vue";

/** The band of the radio network; a device that is set to another one is never heard, or never hears. */
const form = reactive({ region: "", subBand: 0 });
const known = useLoad(() => api.get<RadioSettings>("settings/radio"));
const regions = useLoad(() => api.get<Region[]>("regions"));
const { busy, error, run } = useAction();
watch(known.data, (settings) => settings && Object.assign(form, settings));
const region = computed(() => regions.data.value?.find((one) => one.id === form.region));
const changed = computed(
  () => known.data.value && (known.data.value.region !== form.region || known.data.value.subBand !== form.subBand),
);

async function save() {
  await run(
    async () => api.put("settings/radio", { region: form.region, subBand: region.value?.subBands ? form.subBand : 0 }),
    "Saved. Stations learn it when they connect next.",
  );
  await known.load();
}
</script>

<template>
  <section class="sheet">
    <h2>Radio band</h2>
    <p class="soft">
      Gateways and devices have to be set to the same. Devices that have joined must join again after a change.
    </p>
    <div class="row">
      <el-select v-model="form.region" aria-label="Region" class="pick">
        <el-option v-for="one in regions.data.value" :key="one.id" :value="one.id" :label="one.title" />
      </el-select>
      <el-select v-if="region?.subBands" v-model="form.subBand" aria-label="Sub-band" class="pick">
        <el-option :value="0" label="all channels" />
        <el-option
          v-for="n in region.subBands"
          :key="n"
          :value="n"
          :label="`sub-band ${n}: channels ${(n - 1) * 8} to ${n * 8 - 1}`"
        />
      </el-select>
      <el-button type="primary" :loading="busy" :disabled="!changed" @click="save">Save</el-button>
    </div>
    <ProblemNote :error="error" />
  </section>
</template>

<style scoped>
.pick {
  max-width: 20rem;
}
</style>
