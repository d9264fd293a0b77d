<script setup lang="ts">
import { useSession } from "@/shell/session";
import { watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import AppShell from "./shell/AppShell.vue";
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
  <AppShell v-if="session.person && !route.path.startsWith('/shared/')"><RouterView /></AppShell>
  <RouterView v-else />
</template>
