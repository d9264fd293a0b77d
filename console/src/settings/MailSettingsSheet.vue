<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { MailSettings, Notice } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { reactive, watch } from "vue";
import TestMessage from "./TestMessage.vue";

/** The mail server, a test, and what was and was not delivered. */
const form = reactive({ host: "", port: 587, from: "", user: "", password: "", startTls: true });
const known = useLoad(() => api.get<MailSettings | undefined>("settings/mail"));
const notices = useLoad(() => api.get<Notice[]>("notices"));
const { busy, error, run } = useAction();
onChanged(["notices"], notices.load);
watch(
  known.data,
  (settings) => settings && Object.assign(form, { ...settings, user: settings.user ?? "", password: "" }),
);

async function save() {
  await run(
    () => api.put("settings/mail", { ...form, user: form.user || null, password: form.password || null }),
    t("Saved; what waits is tried again now."),
  );
  await known.load();
  await notices.load();
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Mail server for notices") }}</h2>
    <p v-if="!known.loading.value && !known.data.value" class="soft">
      {{ t("None is set up: alerts are shown here, but no mail is sent.") }}
    </p>
    <el-form label-position="top" class="form-grid" @submit.prevent="save">
      <el-form-item :label="t('Address')" for="mail-host"
        ><el-input id="mail-host" v-model="form.host" placeholder="mail.example.org"
      /></el-form-item>
      <el-form-item :label="t('Port')" for="mail-port"
        ><el-input-number
          id="mail-port"
          v-model="form.port"
          :controls="false"
          :min="1"
          :max="65535"
          :aria-label="t('Port')"
      /></el-form-item>
      <el-form-item :label="t('Sender')" for="mail-from"
        ><el-input id="mail-from" v-model="form.from" placeholder="pasture@example.org"
      /></el-form-item>
      <el-form-item :label="t('User (may be empty)')" for="mail-user"
        ><el-input id="mail-user" v-model="form.user" autocomplete="off"
      /></el-form-item>
      <el-form-item :label="t('Password; empty leaves it as it is')" for="mail-password"
        ><el-input id="mail-password" v-model="form.password" type="password" autocomplete="new-password"
      /></el-form-item>
      <el-form-item :label="t('Connection')"
        ><el-checkbox v-model="form.startTls">{{ t("must be encrypted (STARTTLS)") }}</el-checkbox></el-form-item
      >
    </el-form>
    <ProblemNote :error="error" />
    <p>
      <el-button type="primary" :loading="busy" :disabled="!form.host || !form.from" @click="save">{{
        t("Save")
      }}</el-button>
    </p>
    <TestMessage
      path="settings/mail/test"
      type="email"
      :label="t('Address for the test message')"
      placeholder="you@example.org"
      :ready="known.data.value !== undefined"
    />
  </section>
  <section class="sheet">
    <h2>{{ t("What was and was not delivered") }}</h2>
    <table v-if="notices.data.value?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("When") }}</th>
          <th>{{ t("To") }}</th>
          <th>{{ t("What") }}</th>
          <th>{{ t("State") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="notice in notices.data.value" :key="notice.id">
          <td class="small">{{ moment(notice.createdAt) }}</td>
          <td class="small">{{ notice.recipient }}</td>
          <td class="wide">
            <RouterLink v-if="notice.alertId" :to="`/alerts/${notice.alertId}`">{{ notice.subject }}</RouterLink>
            <template v-else>{{ notice.subject }}</template>
          </td>
          <td :class="{ 'tried-failed': notice.state !== 'delivered' }" class="wide">
            {{ said(notice.state)
            }}<template v-if="notice.lastError">{{
              t(": {lastError}, tried {attempts} times", { lastError: notice.lastError, attempts: notice.attempts })
            }}</template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">{{ t("Nothing was sent yet.") }}</p>
  </section>
</template>
