<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Dashboard, ShareLink } from "@/api/types";
import { useAction } from "@/look/act";
import { age, day, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import ShownOnce from "@/look/ShownOnce.vue";
import { computed, ref } from "vue";

/** Read-only links to a dashboard: made, shown once, withdrawn. */
const { dashboard } = defineProps<{ dashboard: Dashboard }>();
const emit = defineEmits<{ close: [] }>();
const note = ref("");
const days = ref<number | null>(30);
const passcode = ref("");
const made = ref<ShareLink>();
const { busy, error, run } = useAction();
const { data, load } = useLoad(() => api.get<ShareLink[]>("links"));
const links = computed(() => data.value?.filter((link) => link.dashboardId === dashboard.id) ?? []);

function openings(link: ShareLink): string {
  const times = t("once | {n} times", { n: link.opened });
  return link.opened
    ? t("opened {times}, last {age}", { times, age: age(link.lastOpenedAt, now.value) })
    : t("never opened");
}

async function make() {
  await run(async () => {
    made.value = await api.post<ShareLink>(`dashboards/${dashboard.id}/links`, {
      note: note.value || null,
      days: days.value,
      passcode: passcode.value || null,
    });
    passcode.value = "";
    await load();
  });
}

async function withdraw(link: ShareLink) {
  await run(() => api.remove("links/" + link.id), t("Withdrawn: the link no longer opens."));
  made.value = made.value?.id === link.id ? undefined : made.value;
  await load();
}
</script>

<template>
  <el-dialog model-value :title="t('Share {name}', { name: dashboard.name })" @close="emit('close')">
    <div class="stack">
      <p class="soft">
        {{ t("Everyone with the link can view this dashboard without an account. They cannot change anything.") }}
      </p>
      <ShownOnce v-if="made" :label="t('Shown this once; copy it now.')" :value="made.link ?? ''" />
      <el-form v-else label-position="top" class="row form" @submit.prevent="make">
        <el-form-item :label="t('For whom (a note for yourself)')" for="share-note"
          ><el-input id="share-note" v-model="note"
        /></el-form-item>
        <el-form-item :label="t('Open for')" for="share-days">
          <el-select id="share-days" v-model="days" :aria-label="t('Open for')">
            <el-option :value="1" :label="t('1 day')" /><el-option :value="7" :label="t('1 week')" /><el-option
              :value="30"
              :label="t('30 days')"
            /><el-option :value="365" :label="t('1 year')" />
          </el-select>
        </el-form-item>
        <el-form-item :label="t('Passcode (optional)')" for="share-passcode"
          ><el-input id="share-passcode" v-model="passcode" autocomplete="off" :placeholder="t('4 characters or more')"
        /></el-form-item>
        <el-button type="primary" native-type="submit" :loading="busy">{{ t("Make a link") }}</el-button>
      </el-form>
      <ProblemNote :error="error" />
      <div v-if="links.length">
        <h3>{{ t("Links that are open") }}</h3>
        <div v-for="link in links" :key="link.id" class="row link">
          <span>{{ link.note || t("no note") }}</span>
          <span class="soft small">{{
            t("made {day}, until {until}, {openings}{passcode}", {
              day: day(link.createdAt),
              until: link.until ? day(link.until) : t("withdrawn"),
              openings: openings(link),
              passcode: link.passcode ? t(", with a passcode") : "",
            })
          }}</span>
          <el-button link type="primary" @click="withdraw(link)">{{ t("Withdraw") }}</el-button>
        </div>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.form > :first-child {
  flex: 1 1 12rem;
}
.form .el-select {
  width: 8rem;
}
.link {
  border-top: 1px solid var(--line);
  padding: 0.4rem 0;
}
.link > :first-child {
  flex: 1;
}
p {
  margin: 0;
}
</style>
