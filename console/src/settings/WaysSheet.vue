<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Severity, Tested, Ways } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { useSession } from "@/shell/session";
import { reactive, ref, watch } from "vue";
import NotifiedBrowsers from "./NotifiedBrowsers.vue";
import SeverityFrom from "./SeverityFrom.vue";

/** How one is notified of alerts: by what, from which severity on, and when not. */
const session = useSession();
const known = useLoad(() => api.get<Ways>("session/notices"));
const form = reactive({
  email: "",
  mailFrom: "advisory" as Severity | "none",
  phone: "",
  textFrom: "none" as Severity | "none",
  browserFrom: "none" as Severity | "none",
  daily: false,
  digestAt: "07:00",
  quiet: false,
  quietFrom: "22:00",
  quietUntil: "06:00",
  away: undefined as [string, string] | undefined,
});
const results = ref<Tested[]>();
const { busy, error, run } = useAction();

watch(known.data, (ways) => {
  if (ways) {
    Object.assign(form, {
      email: ways.email ?? "",
      mailFrom: ways.mailFrom ?? "none",
      phone: ways.phone ?? "",
      textFrom: ways.textFrom ?? "none",
      browserFrom: ways.browserFrom ?? "none",
      daily: ways.digestAt != null,
      digestAt: ways.digestAt?.slice(0, 5) ?? "07:00",
      quiet: ways.quietFrom != null,
      quietFrom: ways.quietFrom?.slice(0, 5) ?? "22:00",
      quietUntil: ways.quietUntil?.slice(0, 5) ?? "06:00",
      away: ways.awayFrom && ways.awayUntil ? [ways.awayFrom, ways.awayUntil] : undefined,
    });
  }
});

function request(): Ways {
  return {
    email: form.email || null,
    mailFrom: form.mailFrom === "none" ? null : form.mailFrom,
    phone: form.phone || null,
    textFrom: form.textFrom === "none" ? null : form.textFrom,
    browserFrom: form.browserFrom === "none" ? null : form.browserFrom,
    digestAt: form.daily ? form.digestAt : null,
    quietFrom: form.quiet ? form.quietFrom : null,
    quietUntil: form.quiet ? form.quietUntil : null,
    awayFrom: form.away?.[0] ?? null,
    awayUntil: form.away?.[1] ?? null,
  };
}

async function save() {
  await run(() => api.put("session/notices", request()), t("Saved."));
}

async function test() {
  results.value = undefined;
  await run(async () => {
    await api.put("session/notices", request());
    results.value = await api.post<Tested[]>("session/notices/test", {});
  });
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("How you are notified") }}</h2>
    <p class="soft">{{ t("This applies where a rule names you as a recipient.") }}</p>
    <ProblemNote :error="known.error.value" />
    <el-form label-position="top" class="form-grid" @submit.prevent="save">
      <el-form-item :label="t('E-mail address')" for="ways-email">
        <el-input
          id="ways-email"
          v-model="form.email"
          type="email"
          :placeholder="session.person?.email || 'you@example.org'"
        />
      </el-form-item>
      <el-form-item :label="t('E-mail')">
        <SeverityFrom v-model="form.mailFrom" :label="t('E-mail')" />
      </el-form-item>
      <el-form-item :label="t('Telephone number')" for="ways-phone">
        <el-input id="ways-phone" v-model="form.phone" type="tel" placeholder="+44 7700 900123" />
      </el-form-item>
      <el-form-item :label="t('Text message')">
        <SeverityFrom v-model="form.textFrom" :disabled="!form.phone" :label="t('Text message')" />
      </el-form-item>
      <el-form-item :label="t('Browsers')">
        <NotifiedBrowsers @changed="form.browserFrom = form.browserFrom === 'none' ? 'advisory' : form.browserFrom" />
      </el-form-item>
      <el-form-item :label="t('Notice in these browsers')">
        <SeverityFrom v-model="form.browserFrom" :label="t('Notice in these browsers')" />
      </el-form-item>
      <el-form-item :label="t('Advisory alerts once a day, in one message')">
        <div class="row">
          <el-switch v-model="form.daily" :aria-label="t('Once a day')" />
          <template v-if="form.daily">
            {{ t("at") }} <el-input v-model="form.digestAt" type="time" :aria-label="t('Once a day at')" class="time" />
          </template>
        </div>
      </el-form-item>
      <el-form-item :label="t('Quiet hours (critical notices only)')">
        <div class="row">
          <el-switch v-model="form.quiet" :aria-label="t('Quiet hours')" />
          <template v-if="form.quiet">
            <el-input v-model="form.quietFrom" type="time" :aria-label="t('Quiet from')" class="time" />
            {{ t("to") }}
            <el-input v-model="form.quietUntil" type="time" :aria-label="t('Quiet until')" class="time" />
          </template>
        </div>
      </el-form-item>
      <el-form-item :label="t('Away (no notices; the next recipients are notified instead)')">
        <el-date-picker
          v-model="form.away"
          type="daterange"
          :aria-label="t('Away')"
          :start-placeholder="t('first day')"
          :end-placeholder="t('last day')"
          value-format="YYYY-MM-DD"
        />
      </el-form-item>
    </el-form>
    <ProblemNote :error="error" />
    <div class="row">
      <el-button type="primary" :loading="busy" @click="save">{{ t("Save") }}</el-button>
      <el-button :loading="busy" @click="test">{{ t("Save and send a test message") }}</el-button>
    </div>
    <p
      v-for="result in results"
      :key="result.message"
      :class="result.ok ? 'tried-worked' : 'tried-failed'"
      role="status"
    >
      {{ result.message }}
    </p>
    <p v-if="results && !results.length" class="tried-failed" role="status">
      {{
        t(
          "You have no address: nothing can be sent to you. Enter an e-mail address or a telephone number, or add this browser.",
        )
      }}
    </p>
  </section>
</template>

<style scoped>
.time {
  width: 8rem;
}
</style>
