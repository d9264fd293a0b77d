<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { LifeSign } from "@/api/types";
import { parted } from "@/alerts/recipients";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { reactive, watch } from "vue";

/** Messages at intervals that say that this instance works, so that somebody notices when it does not. */
const known = useLoad(() => api.get<LifeSign>("settings/life-sign"));
const form = reactive({ everyMinutes: 60, url: "", recipients: "" });
const { busy, error, run } = useAction();
watch(known.data, (found) => {
  if (found?.settings) {
    Object.assign(form, {
      everyMinutes: found.settings.everyMinutes,
      url: found.settings.url ?? "",
      recipients: (found.settings.recipients ?? []).join(", "),
    });
  }
});

async function save() {
  await run(
    () =>
      api.put("settings/life-sign", {
        everyMinutes: form.everyMinutes,
        url: form.url || null,
        recipients: parted(form.recipients),
      }),
    t("Saved. A life sign was sent."),
  );
  await known.load();
}

async function stop() {
  await run(() => api.remove("settings/life-sign"), t("No life signs are sent any more."));
  await known.load();
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Life sign") }}</h2>
    <p class="soft">
      {{
        t(
          "If the life sign stays away, this instance, its network or its power has failed. The address can be an HTTP inlet of a second instance with a rule for silence.",
        )
      }}
    </p>
    <ProblemNote :error="known.error.value" />
    <el-form label-position="top" class="form-grid" @submit.prevent="save">
      <el-form-item :label="t('Interval (minutes)')" for="life-every">
        <el-input-number
          id="life-every"
          v-model="form.everyMinutes"
          :min="1"
          :max="10080"
          :aria-label="t('Interval')"
        />
      </el-form-item>
      <el-form-item :label="t('Address (optional)')" for="life-url">
        <el-input id="life-url" v-model="form.url" type="url" placeholder="other.example.org/in/…" />
      </el-form-item>
      <el-form-item :label="t('E-mail addresses, telephone numbers (optional)')" for="life-told">
        <el-input id="life-told" v-model="form.recipients" />
      </el-form-item>
    </el-form>
    <ProblemNote :error="error" />
    <div class="row">
      <el-button type="primary" :loading="busy" :disabled="!form.url && !form.recipients" @click="save">{{
        t("Save and send one")
      }}</el-button>
      <el-button v-if="known.data.value?.settings" @click="stop">{{ t("Stop") }}</el-button>
      <span v-if="known.data.value?.sentAt" :class="known.data.value.problem ? 'tried-failed' : 'soft small'">
        {{
          t("Last one {moment}{problem}", {
            moment: moment(known.data.value.sentAt),
            problem: known.data.value.problem
              ? t(": not delivered: {problem}", { problem: known.data.value.problem })
              : "",
          })
        }}
      </span>
    </div>
  </section>
</template>
