<script setup lang="ts">
import { t, widgetTexts } from "@/language";
import { useSession } from "@/shell/session";
import { watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import ProblemNote from "./look/ProblemNote.vue";
import AppShell from "./shell/AppShell.vue";
import DoorSheet from "./shell/DoorSheet.vue";
import "./look/appearance";

const session = useSession();
const route = useRoute();
const router = useRouter();

// A sign-in that ends while somebody looks leads to the door, and back to the same page afterwards.
watch(
  () => session.person,
  (person) => {
    if (!person && !route.meta.open) {
      void router.push({ path: "/sign-in", query: { then: route.fullPath } });
    }
  },
);
</script>

<template>
  <el-config-provider :locale="widgetTexts">
    <AppShell v-if="session.person && !route.meta.bare"><RouterView /></AppShell>
    <DoorSheet v-else-if="session.away" :title="t('Service not available')">
      <p role="status">
        {{ t("The service does not answer. This page tries again by itself and goes on as soon as it does.") }}
      </p>
      <ProblemNote :error="session.away" />
    </DoorSheet>
    <RouterView v-else />
  </el-config-provider>
</template>
