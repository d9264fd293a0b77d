<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Tested } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";

/** Sends a test message to an address, and says what came of it. */
const { path } = defineProps<{
  path: string;
  type: "email" | "tel";
  label: string;
  placeholder: string;
  ready: boolean;
}>();
const to = ref("");
const result = ref<Tested>();
const { busy, error, run } = useAction();

async function test() {
  result.value = undefined;
  await run(async () => (result.value = await api.post<Tested>(path, { to: to.value })));
}
</script>

<template>
  <form class="row test" @submit.prevent="test">
    <el-input v-model="to" :type="type" :aria-label="label" :placeholder="placeholder" />
    <el-button native-type="submit" :disabled="!to || !ready" :loading="busy">{{ t("Send a test message") }}</el-button>
  </form>
  <ProblemNote :error="error" />
  <p v-if="result" :class="result.ok ? 'tried-worked' : 'tried-failed'" role="status">{{ result.message }}</p>
</template>

<style scoped>
.test .el-input {
  width: 16rem;
}
</style>
