<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { SecondFactor } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { renderSVG } from "uqr";
import { computed, ref } from "vue";

/** One's own second factor: set up with an app, switched on with a first code, switched off with password and code. */
const state = useLoad(() => api.get<SecondFactor>("session/second-factor"));
const password = ref("");
const code = ref("");
const begun = ref<SecondFactor>();
const codes = ref<string[]>([]);
const { busy, error, run } = useAction();
const picture = computed(() => (begun.value?.uri ? renderSVG(begun.value.uri, { border: 2 }) : ""));

async function begin() {
  await run(async () => {
    begun.value = await api.post<SecondFactor>("session/second-factor", { password: password.value });
  });
  password.value = "";
}

async function confirm() {
  const ok = await run(async () => {
    const on = await api.put<SecondFactor>("session/second-factor", { code: code.value });
    codes.value = on.recoveryCodes;
    begun.value = undefined;
  }, t("The second factor is on."));
  code.value = "";
  if (ok) {
    await state.load();
  }
}

async function remove() {
  const ok = await run(
    () => api.post("session/second-factor/removal", { password: password.value, code: code.value }),
    t("The second factor is off."),
  );
  code.value = "";
  if (ok) {
    password.value = "";
    codes.value = [];
    await state.load();
  }
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Second factor") }}</h2>
    <ProblemNote :error="state.error.value" />
    <div v-if="codes.length" class="codes" role="status">
      <p>
        <strong>{{ t("Keep these recovery codes on paper.") }}</strong>
        {{ t("Each works once, when the app is lost. They are not shown again.") }}
      </p>
      <ul class="mono">
        <li v-for="one in codes" :key="one">{{ one }}</li>
      </ul>
    </div>
    <template v-if="state.data.value?.on">
      <p>
        {{
          t("On. {recoveryCodesLeft} recovery codes are left.", {
            recoveryCodesLeft: state.data.value.recoveryCodesLeft,
          })
        }}
      </p>
      <el-form label-position="top" class="form" @submit.prevent="remove">
        <PasswordField id="factor-password" v-model="password" :label="t('Current password')" />
        <el-form-item :label="t('Code of the app, or a recovery code')" for="factor-code"
          ><el-input id="factor-code" v-model="code" autocomplete="one-time-code"
        /></el-form-item>
        <el-button native-type="submit" :loading="busy" :disabled="!password || !code">{{ t("Switch off") }}</el-button>
      </el-form>
    </template>
    <template v-else-if="begun">
      <p>
        {{
          t("Scan this with an authenticator app, or enter the key by hand. Then enter the code that the app shows.")
        }}
      </p>
      <!-- eslint-disable-next-line vue/no-v-html — drawn here from numbers -->
      <div class="picture" role="img" :aria-label="t('Key for the authenticator app')" v-html="picture" />
      <p class="mono">{{ begun.secret?.replace(/(.{4})/g, "$1 ") }}</p>
      <el-form label-position="top" class="form" @submit.prevent="confirm">
        <el-form-item :label="t('Code')" for="factor-first"
          ><el-input id="factor-first" v-model="code" autocomplete="one-time-code" inputmode="numeric"
        /></el-form-item>
        <el-button type="primary" native-type="submit" :loading="busy" :disabled="!code">{{
          t("Switch on")
        }}</el-button>
        <el-button @click="begun = undefined">{{ t("Cancel") }}</el-button>
      </el-form>
    </template>
    <template v-else-if="state.data.value">
      <p class="soft">{{ t("Off. With it, signing in needs a code of an authenticator app besides the password.") }}</p>
      <el-form label-position="top" class="form" @submit.prevent="begin">
        <PasswordField id="factor-password" v-model="password" :label="t('Current password')" />
        <el-button native-type="submit" :loading="busy" :disabled="!password">{{ t("Set up") }}</el-button>
      </el-form>
    </template>
    <ProblemNote :error="error" />
  </section>
</template>

<style scoped>
.form {
  max-width: 28rem;
}
.picture {
  width: 12rem;
  background: white;
}
.codes ul {
  columns: 2;
  max-width: 24rem;
  padding-left: 1.2rem;
}
</style>
