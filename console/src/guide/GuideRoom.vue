<script setup lang="ts">
import { t } from "@/language";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { useSession } from "@/shell/session";
import { computed, watch } from "vue";
import { useRouter } from "vue-router";
import { PAGES } from "./pages";
import { fileOf, render } from "./text";

/** The guide: a list of its pages beside the one that is read. */
const { page } = defineProps<{ page: string }>();
const router = useRouter();
const session = useSession();
// It is read without an account too; who is signed in keeps the rooms beside it.
if (!session.person) {
  void session.resume().catch(() => undefined);
}
const { data, error, load } = useLoad(async () => (await fileOf(page)?.()) ?? "");
watch(() => page, load);
const html = computed(() => (data.value ? render(data.value) : ""));

/** Links between pages stay in the console. */
function follow(event: MouseEvent) {
  const link = (event.target as HTMLElement).closest("a");
  const to = link?.getAttribute("href") ?? "";
  if (to.startsWith("/guide/") && !event.ctrlKey && !event.metaKey && !event.shiftKey) {
    event.preventDefault();
    void router.push(to);
  }
}
</script>

<template>
  <div class="page guide">
    <nav :aria-label="t('Pages of the guide')">
      <RouterLink v-for="one in PAGES" :key="one.name" :to="`/guide/${one.name}`">{{ one.title }}</RouterLink>
    </nav>
    <ProblemNote :error="error" />
    <!-- eslint-disable-next-line vue/no-v-html -- our own files, rendered without HTML of theirs -->
    <article v-if="html" class="sheet" @click="follow" v-html="html"></article>
    <EmptyState v-else-if="data === ''" :title="t('The guide has no such page')">{{
      t("Choose one from the list.")
    }}</EmptyState>
  </div>
</template>

<style scoped>
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
nav a {
  padding: 8px 0;
}
nav a.router-link-active {
  font-weight: 600;
  text-decoration: none;
  color: inherit;
}
article {
  max-width: 78ch;
  overflow-x: auto;
}
article :deep(h1) {
  font-size: 1.6rem;
  margin: 0 0 12px;
}
article :deep(h2) {
  margin: 20px 0 6px;
}
article :deep(li) {
  margin-bottom: 6px;
}
article :deep(img) {
  display: block;
  max-width: 100%;
  margin-top: 6px;
}
article :deep(th),
article :deep(td) {
  text-align: left;
  vertical-align: top;
  padding: 6px 16px 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
