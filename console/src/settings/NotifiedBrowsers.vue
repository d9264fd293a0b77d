<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { BrowserView, BrowsersView } from "@/api/types";
import { useAction } from "@/look/act";
import { day } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed } from "vue";
import { hindrance, notifyHere, notifyHereNoLonger, thisBrowser } from "./browsers";

/** Browsers in which one is notified, also while no page is open: this one added, any of them removed. */
const emit = defineEmits<{ changed: [] }>();
const { data, error, load } = useLoad(() => api.get<BrowsersView>("session/browsers"));
const { busy, error: refused, run } = useAction();
const why = hindrance();
const here = computed(() => data.value?.browsers.some((one) => one.id === thisBrowser()) ?? false);

async function add() {
  await run(async () => {
    await notifyHere(data.value!);
    await load();
    emit("changed");
  }, t("You are notified in this browser from now on."));
}

async function remove(browser: BrowserView) {
  await run(async () => {
    await (browser.id === thisBrowser() ? notifyHereNoLonger() : api.remove("session/browsers/" + browser.id));
    await load();
  }, t("Removed."));
}
</script>

<template>
  <div class="stack browsers">
    <ProblemNote :error="error ?? refused" />
    <div v-for="browser in data?.browsers" :key="browser.id" class="row">
      <span
        >{{ browser.name }}{{ browser.id === thisBrowser() ? ` ${t("(this one)")}` : "" }}
        <span class="soft small">{{
          t("since {day}, by {host}", { day: day(browser.addedAt), host: browser.host })
        }}</span></span
      >
      <el-button link type="primary" :disabled="busy" @click="remove(browser)">{{ t("Remove") }}</el-button>
    </div>
    <p v-if="why && !here" class="soft small">{{ why }}</p>
    <el-button v-else-if="data && !here" :loading="busy" @click="add">{{ t("Notify me in this browser") }}</el-button>
  </div>
</template>

<style scoped>
.browsers {
  width: 100%;
}
.browsers p {
  margin: 0;
  line-height: 1.4;
}
.browsers .row {
  justify-content: space-between;
}
.browsers > .el-button {
  align-self: flex-start;
}
</style>
