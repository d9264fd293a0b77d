<script setup lang="ts">
import { t } from "@/language";
import type { StarredPage } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { addressOf, ROOMS, starred, starredPages, startWith } from "@/starred/starred";
import { computed } from "vue";

/** Which page opens first for this person: a room, or one that is starred. */
const { error, run } = useAction();
const choices = computed(() => [
  ...Object.entries(ROOMS).map(([of, name]) => ({ page: { kind: "room", of } as StarredPage, name })),
  ...starredPages.value.filter((one) => one.page.kind !== "room"),
]);
const chosen = computed({
  get: () => (starred.value.start ? addressOf(starred.value.start) : "/now"),
  set: (address) => {
    const page = choices.value.find((one) => addressOf(one.page) === address)?.page ?? null;
    void run(() => startWith(address === "/now" ? null : page), t("Your start page is saved."));
  },
});
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Start page") }}</h2>
    <p class="soft">
      {{ t("Opens first when you sign in, on each of your devices. Star a page to have it in this list.") }}
    </p>
    <ProblemNote :error="error" />
    <el-select v-model="chosen" :aria-label="t('Start page')" class="which">
      <el-option v-for="one in choices" :key="addressOf(one.page)" :value="addressOf(one.page)" :label="one.name" />
    </el-select>
  </section>
</template>

<style scoped>
.which {
  max-width: 24rem;
}
</style>
