<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Dashboard, Purpose } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { labelOf } from "@/points/names";
import { usePoints } from "@/points/points";
import { computed, reactive } from "vue";
import { useRouter } from "vue-router";

/** Makes a dashboard that is full at once: for a purpose at a place, or for chosen points. */
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const router = useRouter();
const { busy, error, run } = useAction();
const PURPOSES: { id: Purpose | ""; name: string; what: string }[] = [
  {
    id: "machine",
    name: t("Machine check"),
    what: t("vibration by direction, heat, pressure, what runs, over 30 days"),
  },
  { id: "cold-chain", name: t("Cold chain"), what: t("temperatures with their limits, zones of the week, doors") },
  { id: "barn", name: t("Barn air"), what: t("gases as the mean of a shift, heat index, temperature, humidity") },
  { id: "remote-site", name: t("Remote site"), what: t("supplies, power, levels, what has the least headroom") },
  { id: "commissioning", name: t("Bringing sensors in"), what: t("everything that is there, over the last hour") },
  { id: "", name: t("Chosen points"), what: t("a panel for each point, and lines") },
];
const form = reactive({
  purpose: "machine" as Purpose | "",
  placeId: places.places.find((place) => points.below(place.id).length)?.id ?? "",
  name: "",
  siteId: "",
  pointIds: [] as string[],
});
const filled = computed(() => places.places.filter((place) => points.below(place.id).length));
const sites = computed(() => places.editable.filter((place) => place.kind === "site"));
const usualName = computed(() => {
  const place = places.byId.get(form.placeId)?.name;
  const purpose = PURPOSES.find((one) => one.id === form.purpose)?.name ?? "";
  return form.purpose ? (place ? `${purpose}: ${place}` : purpose) : "";
});
const name = computed(() => form.name || usualName.value);

async function make() {
  await run(async () => {
    const made = await api.post<Dashboard>("dashboards", {
      name: name.value,
      siteId: form.siteId || null,
      ...(form.purpose ? { purpose: form.purpose, placeId: form.placeId } : { pointIds: form.pointIds }),
    });
    await router.push("/dashboards/" + made.id);
  });
}
</script>

<template>
  <FormDialog
    :title="t('Make a dashboard')"
    :save-label="t('Make it')"
    :error="error"
    :busy="busy"
    :disabled="!name || (form.purpose !== '' && !form.placeId)"
    @save="make"
    @close="emit('close')"
  >
    <el-form-item :label="t('What for')">
      <el-radio-group v-model="form.purpose" class="purposes" :aria-label="t('What for')">
        <el-radio v-for="one in PURPOSES" :key="one.id" :value="one.id">
          <strong>{{ one.name }}</strong> <span class="soft">{{ one.what }}</span>
        </el-radio>
      </el-radio-group>
    </el-form-item>
    <el-form-item v-if="form.purpose" :label="t('Place, with all that lies below it')" for="dashboard-place">
      <el-select id="dashboard-place" v-model="form.placeId" filterable :aria-label="t('Place')">
        <el-option v-for="place in filled" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
    </el-form-item>
    <el-form-item v-else :label="t('Points')" for="dashboard-points">
      <el-select
        id="dashboard-points"
        v-model="form.pointIds"
        multiple
        filterable
        :aria-label="t('Points')"
        :placeholder="t('choose points')"
      >
        <el-option v-for="point in points.all" :key="point.id" :value="point.id" :label="labelOf(point)" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Name')" for="dashboard-name"
      ><el-input id="dashboard-name" v-model="form.name" :placeholder="usualName" maxlength="80"
    /></el-form-item>
    <el-form-item v-if="sites.length" :label="t('Visible to')" for="dashboard-site">
      <el-select id="dashboard-site" v-model="form.siteId" :aria-label="t('Visible to')" :empty-values="[undefined]">
        <el-option value="" :label="t('only me')" />
        <el-option
          v-for="site in sites"
          :key="site.id"
          :value="site.id"
          :label="t('everybody who may look at {name}', { name: site.name })"
        />
      </el-select>
    </el-form-item>
  </FormDialog>
</template>

<style scoped>
.purposes {
  display: grid;
  gap: 0.1rem;
}
.purposes :deep(.el-radio) {
  height: auto;
  white-space: normal;
  align-items: baseline;
  margin: 0;
  padding: 0.2rem 0;
}
</style>
