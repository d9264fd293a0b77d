<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { TextSettings } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { reactive, watch } from "vue";
import TestMessage from "./TestMessage.vue";

/** The gateway that sends text messages, and a test. */
const form = reactive({
  url: "",
  format: "json" as "json" | "form",
  toField: "to",
  textField: "text",
  fields: "",
  header: "Authorization",
  secret: "",
});
const known = useLoad(() => api.get<TextSettings | undefined>("settings/text"));
const { busy, error, run } = useAction();
watch(known.data, (settings) => {
  if (settings) {
    Object.assign(form, {
      ...settings,
      fields: Object.entries(settings.fields ?? {})
        .map(([name, value]) => `${name}=${value}`)
        .join("\n"),
      secret: "",
    });
  }
});

/** Further fields, one a line: name=value. */
function fields(): Record<string, string> {
  return Object.fromEntries(
    form.fields
      .split("\n")
      .filter((line) => line.trim())
      .map((line) => {
        const at = line.indexOf("=");
        return at < 0 ? [line.trim(), ""] : [line.slice(0, at).trim(), line.slice(at + 1).trim()];
      }),
  );
}

async function save() {
  await run(
    () => api.put("settings/text", { ...form, fields: fields(), secret: form.secret || null }),
    t("Saved. Waiting messages are sent now."),
  );
  await known.load();
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Gateway for text messages") }}</h2>
    <p v-if="!known.loading.value && !known.error.value && !known.data.value" class="soft">
      {{
        t("None is configured: no text messages are sent. Any service or modem that takes a message by HTTP will do.")
      }}
    </p>
    <ProblemNote :error="known.error.value" />
    <el-form label-position="top" class="form-grid" @submit.prevent="save">
      <el-form-item :label="t('Address')" for="text-url">
        <el-input id="text-url" v-model="form.url" type="url" placeholder="sms.example.org/send" />
      </el-form-item>
      <el-form-item :label="t('Format')" for="text-format">
        <el-select id="text-format" v-model="form.format" :aria-label="t('Format')">
          <el-option value="json" label="JSON" />
          <el-option value="form" :label="t('Form fields')" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('Field with the number')" for="text-to"
        ><el-input id="text-to" v-model="form.toField"
      /></el-form-item>
      <el-form-item :label="t('Field with the text')" for="text-text"
        ><el-input id="text-text" v-model="form.textField"
      /></el-form-item>
      <el-form-item :label="t('Header with the secret')" for="text-header"
        ><el-input id="text-header" v-model="form.header"
      /></el-form-item>
      <el-form-item :label="t('Secret; empty leaves it as it is')" for="text-secret"
        ><el-input id="text-secret" v-model="form.secret" type="password" autocomplete="new-password"
      /></el-form-item>
      <el-form-item :label="t('Further fields, one a line (name=value)')" for="text-fields"
        ><el-input id="text-fields" v-model="form.fields" type="textarea" :rows="2" placeholder="from=Pasture"
      /></el-form-item>
    </el-form>
    <ProblemNote :error="error" />
    <p>
      <el-button type="primary" :loading="busy" :disabled="!form.url" @click="save">{{ t("Save") }}</el-button>
    </p>
    <TestMessage
      path="settings/text/test"
      type="tel"
      :label="t('Number for the test message')"
      placeholder="+44 7700 900123"
      :ready="known.data.value !== undefined"
    />
  </section>
</template>
