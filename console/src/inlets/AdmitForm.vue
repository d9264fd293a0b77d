<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Channel, Device, DeviceModel, Proposal } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import FormDialog from "@/look/FormDialog.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { QUANTITIES, UNITS } from "@/points/quantities";
import { computed, reactive, ref } from "vue";
import { useRouter } from "vue-router";

/** Admits a device that was heard at an inlet: by a model that is there, or by one made from what its message holds. */
const { inletId, siteId, address, proposal } = defineProps<{
  inletId: string;
  siteId: string | null;
  address: string;
  proposal: Proposal | null;
}>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const router = useRouter();
const models = useLoad(() => api.get<DeviceModel[]>("models"));
const { busy, error, run } = useAction();
const form = reactive({
  name: address,
  modelId: "",
  placeId: places.editable.find((place) => places.path(place.id)[0]?.id === siteId)?.id ?? places.editable[0]?.id ?? "",
  makePoints: true,
});
const fresh = ref(false);
const model = reactive({ name: "", intervalSeconds: 60 });
const example = computed(
  () => new Map((proposal?.example ?? "").split(" ").map((pair) => pair.split("=") as [string, string])),
);
const channels = reactive(
  (proposal?.channels ?? []).map((channel) => ({ ...channel, wanted: true })) as (Channel & { wanted: boolean })[],
);
const ready = computed(
  () => form.name && form.placeId && (fresh.value ? model.name && channels.some((one) => one.wanted) : form.modelId),
);

async function save() {
  await run(
    async () => {
      if (fresh.value) {
        const made = await api.post<DeviceModel>("models", {
          id: "",
          name: model.name,
          description: "",
          intervalSeconds: model.intervalSeconds,
          batteryChannel: null,
          layout: proposal?.layout,
          channels: channels
            .filter((one) => one.wanted)
            .map(({ name, title, quantity }) => ({ name, title, quantity, unit: UNITS[quantity] ?? "" })),
        });
        form.modelId = made.id;
        fresh.value = false;
        await models.load();
      }
      const device = await api.post<Device>("devices", { ...form, inletId, address });
      await points.load();
      emit("close");
      await router.push("/fleet/devices/" + device.id);
    },
    t("{name} is in. Its next message is awaited.", { name: form.name }),
  );
}
</script>

<template>
  <FormDialog
    :title="t('Register {address}', { address })"
    :save-label="t('Register')"
    :error="error"
    :busy="busy"
    :disabled="!ready"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Name')" for="admit-name"
      ><el-input id="admit-name" v-model="form.name" autofocus
    /></el-form-item>
    <el-form-item :label="t('Location')" for="admit-place">
      <el-select id="admit-place" v-model="form.placeId" filterable :aria-label="t('Location')">
        <el-option v-for="place in places.editable" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="proposal" :label="t('How it is read')">
      <el-radio-group v-model="fresh" :aria-label="t('How it is read')">
        <el-radio :value="false">{{ t("by a model that is here") }}</el-radio>
        <el-radio :value="true">{{ t("by a new model, from its newest message") }}</el-radio>
      </el-radio-group>
    </el-form-item>
    <el-form-item v-if="!fresh" :label="t('Device model')" for="admit-model">
      <el-select id="admit-model" v-model="form.modelId" filterable :aria-label="t('Device model')">
        <el-option v-for="one in models.data.value" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <template v-else>
      <div class="row">
        <el-form-item :label="t('Name of the model')" for="admit-model-name"
          ><el-input id="admit-model-name" v-model="model.name" :placeholder="t('Weather mast')"
        /></el-form-item>
        <el-form-item :label="t('Usual interval, seconds')" for="admit-interval"
          ><el-input-number id="admit-interval" v-model="model.intervalSeconds" :min="1" :controls="false"
        /></el-form-item>
      </div>
      <p class="soft small">
        {{
          t("The message holds {numbers}. Which do you want, and what are they?", {
            numbers: t("one number | {n} numbers", { n: channels.length }),
          })
        }}
      </p>
      <div v-for="channel in channels" :key="channel.name" class="channel">
        <el-checkbox v-model="channel.wanted" :aria-label="t('Take {name}', { name: channel.name })" />
        <span class="mono">{{ example.get(channel.name) }}</span>
        <el-input
          v-model="channel.title"
          :disabled="!channel.wanted"
          :aria-label="t('What {name} is', { name: channel.name })"
        />
        <el-select
          v-model="channel.quantity"
          filterable
          :disabled="!channel.wanted"
          :aria-label="t('Quantity of {name}', { name: channel.name })"
        >
          <el-option v-for="(title, id) in QUANTITIES" :key="id" :value="id" :label="title" />
        </el-select>
      </div>
    </template>
    <el-checkbox v-model="form.makePoints">{{ t("Make a point for each of its channels") }}</el-checkbox>
  </FormDialog>
</template>

<style scoped>
.channel {
  display: grid;
  grid-template-columns: auto minmax(3.5rem, auto) minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.4rem;
}
@media (max-width: 480px) {
  .channel {
    grid-template-columns: auto minmax(0, 1fr) minmax(0, 1fr);
  }
  .channel .mono {
    grid-column: 2 / -1;
    order: -1;
  }
}
</style>
