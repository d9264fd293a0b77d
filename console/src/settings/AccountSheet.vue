<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { SignedIn } from "@/api/types";
import { useAction } from "@/look/act";
import { day } from "@/look/clock";
import { useLoad } from "@/look/load";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { useSession } from "@/shell/session";
import { reactive } from "vue";

/** One's own password, and where one is signed in. */
const session = useSession();
const sessions = useLoad(() => api.get<SignedIn[]>("sessions"));
const form = reactive({ current: "", password: "" });
const { busy, error, run } = useAction();

async function change() {
  const done = await run(
    () => api.put("session/password", { ...form }),
    t("The password is changed; elsewhere you are signed out."),
  );
  if (done) {
    Object.assign(form, { current: "", password: "" });
    await sessions.load();
  }
}

async function end(one: SignedIn) {
  await run(() => api.remove("sessions/" + one.id), t("That sign-in has ended."));
  await sessions.load();
}

async function endOthers() {
  await run(() => api.remove("sessions"), t("You are signed in here only."));
  await sessions.load();
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Your account") }}</h2>
    <el-form label-position="top" class="form" @submit.prevent="change">
      <input type="text" hidden autocomplete="username" :value="session.person?.name" />
      <PasswordField id="password-current" v-model="form.current" :label="t('Current password')" />
      <PasswordField
        id="password-next"
        v-model="form.password"
        :label="t('New password, at least 10 characters')"
        chosen
      />
      <el-button native-type="submit" :loading="busy" :disabled="!form.current || form.password.length < 10">{{
        t("Change the password")
      }}</el-button>
    </el-form>
    <h3>{{ t("Where you are signed in") }}</h3>
    <ProblemNote :error="sessions.error.value" />
    <div v-for="one in sessions.data.value" :key="one.id" class="row signed-in">
      <span>{{ one.purpose === "console" ? t("a browser") : one.note || t("a program") }}</span>
      <span class="soft small">{{
        t("since {from}, until {until}", { from: day(one.createdAt), until: day(one.expiresAt) })
      }}</span>
      <span v-if="one.current" class="soft small">{{ t("here") }}</span>
      <el-button v-else link @click="end(one)">{{ t("End") }}</el-button>
    </div>
    <el-button v-if="(sessions.data.value?.length ?? 0) > 1" @click="endOthers">{{ t("End all others") }}</el-button>
    <ProblemNote :error="error" />
  </section>
</template>

<style scoped>
.form {
  max-width: 28rem;
}
/* Large enough for a thumb. */
.signed-in {
  min-height: 2.5rem;
}
.signed-in .el-button {
  min-width: 2.75rem;
  min-height: 2.25rem;
}
h3 {
  margin: 1.25rem 0 0.5rem;
}
</style>
