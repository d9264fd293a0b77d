<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Gateway } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { computed, reactive } from "vue";

/** Registers a gateway, admits one that was heard, or changes one. */
const { eui = "", gateway } = defineProps<{ eui?: string; gateway?: Gateway }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const sites = computed(() => places.editable.filter((place) => place.kind === "site"));
const form = reactive({
  name: gateway?.name ?? "",
  eui: gateway?.eui ?? eui,
  siteId: gateway?.siteId ?? sites.value[0]?.id ?? "",
  point: gateway ? gateway.pointId !== null : true,
});
const version = useVersion(gateway && "gateways/" + gateway.id);
const { busy, error, run } = useAction();

async function save() {
  const saved = await run(
    async () => (gateway ? api.put("gateways/" + gateway.id, form, await version()) : api.post("gateways", form)),
    gateway ? t("Saved.") : t("{name} is registered.", { name: form.name }),
  );
  if (saved) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="
      gateway ? t('Change {name}', { name: gateway.name }) : eui ? t('Register this gateway') : t('Register a gateway')
    "
    :save-label="gateway ? t('Save') : t('Register')"
    :error="error"
    :busy="busy"
    :disabled="!form.name || !form.eui"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('EUI, 16 hex digits on its label')" for="gateway-eui"
      ><el-input id="gateway-eui" v-model="form.eui" class="mono" :readonly="eui !== ''"
    /></el-form-item>
    <el-form-item :label="t('Name, such as where it hangs')" for="gateway-name"
      ><el-input id="gateway-name" v-model="form.name" autofocus
    /></el-form-item>
    <el-form-item :label="t('Site')" for="gateway-site">
      <el-select id="gateway-site" v-model="form.siteId" :aria-label="t('Site')"
        ><el-option v-for="site in sites" :key="site.id" :value="site.id" :label="site.name"
      /></el-select>
    </el-form-item>
    <el-checkbox v-model="form.point">{{ t("Count its frames at a point, for charts and rules") }}</el-checkbox>
  </FormDialog>
</template>
