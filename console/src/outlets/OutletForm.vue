<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Outlet } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import SecretField from "@/look/SecretField.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref } from "vue";
import { requestOf, startOf } from "./outletForms";

/** Makes an outlet, or changes one: where to, and what of. */
const { outlet } = defineProps<{ outlet?: Outlet }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const sites = computed(() => places.editable.filter((place) => place.kind === "site"));
const siteId = ref(outlet?.siteId ?? sites.value[0]?.id ?? "");
const draft = ref(startOf(outlet));
const { busy, error, run } = useAction();
const version = useVersion(outlet && "outlets/" + outlet.id);
const within = computed(() =>
  places.places.filter(
    (place) => place.id === siteId.value || places.path(place.id).some((up) => up.id === siteId.value),
  ),
);
const quantities = computed(() => [...new Set(points.all.map((point) => point.quantity))].sort());
const ready = computed(() =>
  Boolean(
    draft.value.name && siteId.value && (draft.value.readings || draft.value.alerts || draft.value.lifeSignMinutes),
  ),
);

async function save() {
  const body = requestOf(draft.value, siteId.value);
  if (
    await run(
      async () => (outlet ? api.put("outlets/" + outlet.id, body, await version()) : api.post("outlets", body)),
      t("Saved."),
    )
  ) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="outlet ? t('Change {name}', { name: outlet.name }) : t('Make an outlet')"
    :save-label="outlet ? t('Save') : t('Make it')"
    :error="error"
    :busy="busy"
    :disabled="!ready"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Name')" for="outlet-name"
      ><el-input id="outlet-name" v-model="draft.name" autofocus :placeholder="t('Office')"
    /></el-form-item>
    <el-form-item :label="t('Site')" for="outlet-site">
      <el-select id="outlet-site" v-model="siteId" :aria-label="t('Site')"
        ><el-option v-for="site in sites" :key="site.id" :value="site.id" :label="site.name"
      /></el-select>
    </el-form-item>
    <el-form-item :label="t('Where to')" for="outlet-kind">
      <el-select id="outlet-kind" v-model="draft.kind" :aria-label="t('Where to')">
        <el-option value="http" :label="t('an address, by HTTP')" />
        <el-option value="mqtt" :label="t('topics of a broker elsewhere, by MQTT')" />
        <el-option value="own-broker" :label="t('topics of the broker of this service, by MQTT')" />
      </el-select>
    </el-form-item>
    <template v-if="draft.kind === 'http'">
      <el-form-item :label="t('Address')" for="outlet-url"
        ><el-input id="outlet-url" v-model="draft.url" class="mono" placeholder="https://office.example/readings"
      /></el-form-item>
      <el-checkbox v-model="draft.allowPrivate">{{ t("Allow local and private addresses") }}</el-checkbox>
      <div class="row">
        <el-form-item :label="t('Secret: signing-key, or a header')" for="outlet-secret-name"
          ><el-input id="outlet-secret-name" v-model="draft.secretName" class="mono" placeholder="signing-key"
        /></el-form-item>
        <SecretField
          id="outlet-secret"
          v-model="draft.secret"
          :label="t('Its value')"
          :placeholder="outlet ? t('as it is') : t('none')"
          class="grow"
        />
      </div>
    </template>
    <template v-else>
      <el-form-item v-if="draft.kind === 'mqtt'" :label="t('Broker')" for="outlet-broker"
        ><el-input id="outlet-broker" v-model="draft.broker" class="mono" placeholder="mqtts://broker.example:8883"
      /></el-form-item>
      <el-form-item :label="t('Topic; {\'{\'}point{\'}\'} stands for place and name of the point')" for="outlet-topic"
        ><el-input id="outlet-topic" v-model="draft.topic" class="mono"
      /></el-form-item>
      <el-checkbox v-model="draft.retained">{{ t("Retain last value (sent to later subscribers)") }}</el-checkbox>
      <div v-if="draft.kind === 'mqtt'" class="row">
        <el-form-item :label="t('User name, if it needs one')" for="outlet-user"
          ><el-input id="outlet-user" v-model="draft.username" autocomplete="off"
        /></el-form-item>
        <SecretField
          id="outlet-password"
          v-model="draft.secret"
          :label="t('Password')"
          :placeholder="outlet ? t('as it is') : t('none')"
          class="grow"
        />
      </div>
      <p v-else class="soft small">
        {{ t("People subscribe with their name and password; they get what lies on sites that they may look at.") }}
      </p>
    </template>
    <el-form-item :label="t('Of which places; nothing for the whole site')" for="outlet-places">
      <el-select id="outlet-places" v-model="draft.placeIds" multiple filterable :aria-label="t('Places')"
        ><el-option v-for="place in within" :key="place.id" :value="place.id" :label="place.name"
      /></el-select>
    </el-form-item>
    <el-form-item :label="t('Only these quantities; nothing for all')" for="outlet-quantities">
      <el-select id="outlet-quantities" v-model="draft.quantities" multiple filterable :aria-label="t('Quantities')"
        ><el-option v-for="one in quantities" :key="one" :value="one" :label="one"
      /></el-select>
    </el-form-item>
    <div class="row">
      <el-checkbox v-model="draft.readings">{{ t("Readings") }}</el-checkbox>
      <el-checkbox v-model="draft.alerts">{{ t("Alerts") }}</el-checkbox>
      <el-select v-model="draft.form" :aria-label="t('Readings as')" class="form" :disabled="!draft.readings"
        ><el-option value="json" :label="t('as JSON')" /><el-option value="senml" :label="t('as SenML')"
      /></el-select>
    </div>
    <el-form-item :label="t('Life sign every so many minutes; 0 for none')" for="outlet-life">
      <el-input-number
        id="outlet-life"
        v-model="draft.lifeSignMinutes"
        :min="0"
        :max="1440"
        :aria-label="t('minutes')"
      />
    </el-form-item>
  </FormDialog>
</template>

<style scoped>
.form {
  width: 9rem;
}
</style>
