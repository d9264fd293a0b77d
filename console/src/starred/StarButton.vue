<script setup lang="ts">
import { t } from "@/language";
import type { StarredPage } from "@/api/types";
import { useAction } from "@/look/act";
import { Star, StarFilled } from "@element-plus/icons-vue";
import { computed } from "vue";
import { isStarred, star } from "./starred";

/** Keeps a page at hand: in the list beside the rooms, in the search, and as a page to start with. */
const { page } = defineProps<{ page: StarredPage }>();
const on = computed(() => isStarred(page));
const { busy, run } = useAction();
const label = computed(() => (on.value ? t("Remove star") : t("Star this page")));
</script>

<template>
  <el-button
    text
    circle
    :loading="busy"
    :icon="on ? StarFilled : Star"
    :aria-label="label"
    :title="label"
    :aria-pressed="on"
    @click="run(() => star(page, !on), on ? t('The star is removed.') : t('Starred. It is listed in the menu.'))"
  />
</template>
