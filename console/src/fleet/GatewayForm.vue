<script setup lang="ts">
import { api } from "@/api/http";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive } from "vue";

/** Registers a gateway, or admits one that was heard. */
const { eui } = defineProps<{ eui: string }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const sites = computed(() => places.editable.filter((place) => place.kind === "site"));
const form = reactive({ name: "", eui, siteId: sites.value[0]?.id ?? "" });
const { busy, error, run } = useAction();

async function save() {
  if (await run(() => api.post("gateways", form), form.name + " is registered.")) {
    emit("close");
  }
}
</script>

<template>
  <el-dialog model-value :title="eui ? 'Register this gateway' : 'Register a gateway'" @close="emit('close')">
    <el-form label-position="top" @submit.prevent="save">
      <el-form-item label="EUI, 16 hex digits on its label" for="gateway-eui"
        ><el-input id="gateway-eui" v-model="form.eui" class="mono" :readonly="eui !== ''"
      /></el-form-item>
      <el-form-item label="Name, such as where it hangs" for="gateway-name"
        ><el-input id="gateway-name" v-model="form.name" autofocus
      /></el-form-item>
      <el-form-item label="Site" for="gateway-site">
        <el-select id="gateway-site" v-model="form.siteId" aria-label="Site"
          ><el-option v-for="site in sites" :key="site.id" :value="site.id" :label="site.name"
        /></el-select>
      </el-form-item>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button type="primary" :loading="busy" :disabled="!form.name || !form.eui" @click="save">{{
        eui ? "Register" : "Register"
      }}</el-button>
    </template>
  </el-dialog>
</template>
