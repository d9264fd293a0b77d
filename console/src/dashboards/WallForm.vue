<script setup lang="ts">
import { t } from "@/language";
import type { DashboardSummary } from "@/api/types";
import FormDialog from "@/look/FormDialog.vue";
import { ref } from "vue";
import { useRouter } from "vue-router";
import { STANDS, USUAL, wallAddress } from "./wall";

/** Chooses which dashboards a screen on a wall shows in turn. */
const { dashboards } = defineProps<{ dashboards: DashboardSummary[] }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const boards = ref(dashboards.slice(0, 1).map((one) => one.id));
const seconds = ref(USUAL);
const words = (stands: number) => (stands < 60 ? `${stands} s` : t("{minutes} min", { minutes: stands / 60 }));
</script>

<template>
  <FormDialog
    :title="t('Wall screen')"
    :save-label="t('Show')"
    :disabled="!boards.length"
    @save="router.push(wallAddress(boards, seconds))"
    @close="emit('close')"
  >
    <p class="soft">
      {{
        t(
          "Shows dashboards in turn and as large as fits, and goes on by itself when the network was away. Keep its address as the start page of that screen's browser, where somebody is signed in who may only look.",
        )
      }}
    </p>
    <el-form-item :label="t('Dashboards, in their order')">
      <el-select v-model="boards" multiple filterable :aria-label="t('Dashboards, in their order')">
        <el-option v-for="one in dashboards" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Each for')">
      <el-select v-model="seconds" :aria-label="t('Each for')">
        <el-option v-for="one in STANDS" :key="one" :value="one" :label="words(one)" />
      </el-select>
    </el-form-item>
  </FormDialog>
</template>

<style scoped>
p {
  margin: 0 0 0.75rem;
}
</style>
