<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { RadioSettings, Region } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, reactive, ref, watch } from "vue";

/** The band of the radio network, and the receive windows of devices; a device that is set to another band is never heard. */
const EMPTY: RadioSettings = {
  region: "",
  subBand: 0,
  rx1DelaySeconds: 1,
  rx1Offset: 0,
  rx2Mhz: null,
  rx2DataRate: null,
  uplinkDwellTime: null,
  downlinkDwellTime: null,
  dutyCycleExponent: 0,
  downlinkChannels: [],
};
const form = reactive<RadioSettings>({ ...EMPTY });
const more = ref(false);
const known = useLoad(() => api.get<RadioSettings>("settings/radio"));
const regions = useLoad(() => api.get<Region[]>("regions"));
const { busy, error, run } = useAction();
watch(known.data, (settings) => {
  if (settings) {
    Object.assign(form, EMPTY, settings);
    more.value = JSON.stringify({ ...settings, region: "", subBand: 0 }) !== JSON.stringify(EMPTY);
  }
});
const region = computed(() => regions.data.value?.find((one) => one.id === form.region));
const changed = computed(() => known.data.value && JSON.stringify(known.data.value) !== JSON.stringify({ ...form }));
/** Another region has other frequencies and data rates. */
function regionChosen() {
  Object.assign(form, EMPTY, { region: form.region });
}

async function save() {
  await run(
    async () => api.put("settings/radio", { ...form, subBand: region.value?.subBands ? form.subBand : 0 }),
    t("Saved. Devices learn it when they join, or with their next frames."),
  );
  await known.load();
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Radio band") }}</h2>
    <p class="soft">
      {{
        t(
          "Gateways and devices have to be set to the same. Devices that have joined must join again after a change of region.",
        )
      }}
    </p>
    <div class="row">
      <el-select v-model="form.region" :aria-label="t('Region')" class="pick" @change="regionChosen">
        <el-option v-for="one in regions.data.value" :key="one.id" :value="one.id" :label="one.title" />
      </el-select>
      <el-select v-if="region?.subBands" v-model="form.subBand" :aria-label="t('Sub-band')" class="pick">
        <el-option :value="0" :label="t('all channels')" />
        <el-option
          v-for="n in region.subBands"
          :key="n"
          :value="n"
          :label="
            t('sub-band {number}: channels {first} to {last}', { number: n, first: (n - 1) * 8, last: n * 8 - 1 })
          "
        />
      </el-select>
      <el-button @click="more = !more">{{ more ? t("Hide receive windows") : t("Receive windows") }}</el-button>
      <el-button type="primary" :loading="busy" :disabled="!changed" @click="save">{{ t("Save") }}</el-button>
    </div>
    <div v-if="more && region" class="windows">
      <label for="rx1-delay">{{ t("RX1 delay") }}</label>
      <span
        ><el-input-number id="rx1-delay" v-model="form.rx1DelaySeconds" :min="1" :max="15" controls-position="right" />
        s</span
      >
      <label for="rx1-offset">{{ t("RX1 data rate offset") }}</label>
      <el-input-number
        id="rx1-offset"
        v-model="form.rx1Offset"
        :min="0"
        :max="region.rx1Offsets"
        controls-position="right"
      />
      <label for="rx2-rate">{{ t("RX2 data rate") }}</label>
      <el-select
        id="rx2-rate"
        v-model="form.rx2DataRate"
        :aria-label="t('RX2 data rate')"
        class="pick"
        clearable
        :placeholder="t('default ({rx2DataRate})', { rx2DataRate: region.rx2DataRate })"
      >
        <el-option
          :value="null as unknown as string"
          :label="t('default ({rx2DataRate})', { rx2DataRate: region.rx2DataRate })"
        />
        <el-option v-for="rate in region.dataRates" :key="rate" :value="rate" :label="rate" />
      </el-select>
      <label for="rx2-mhz">{{ t("RX2 frequency") }}</label>
      <span
        ><el-input-number
          id="rx2-mhz"
          v-model="form.rx2Mhz"
          :precision="3"
          :step="0.1"
          :placeholder="String(region.rx2Mhz)"
          controls-position="right"
        />
        MHz</span
      >
      <label for="duty">{{ t("Duty cycle of devices") }}</label>
      <el-select id="duty" v-model="form.dutyCycleExponent" :aria-label="t('Duty cycle of devices')" class="pick">
        <el-option :value="0" :label="t('no limit beyond the region\'s')" />
        <el-option v-for="n in 15" :key="n" :value="n" :label="t('1/{part} of the time', { part: 2 ** n })" />
      </el-select>
      <template v-if="region.dwellTime">
        <span>{{ t("Dwell time 400 ms") }}</span>
        <span class="row">
          <el-checkbox
            :model-value="form.uplinkDwellTime ?? true"
            :label="t('uplinks')"
            @update:model-value="form.uplinkDwellTime = Boolean($event)"
          />
          <el-checkbox
            :model-value="form.downlinkDwellTime ?? true"
            :label="t('downlinks')"
            @update:model-value="form.downlinkDwellTime = Boolean($event)"
          />
        </span>
      </template>
    </div>
    <ProblemNote :error="error" />
  </section>
</template>

<style scoped>
.pick {
  max-width: 20rem;
}
.windows {
  display: grid;
  grid-template-columns: minmax(9rem, 14rem) minmax(0, 1fr);
  gap: 0.6rem 1rem;
  align-items: center;
  margin-top: 1rem;
}
@media (max-width: 480px) {
  .windows {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.2rem;
  }
}
</style>
