<script setup lang="ts">
import { t } from "@/language";
import { api, Refusal } from "@/api/http";
import type { Person } from "@/api/types";
import { useAction } from "@/look/act";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import DoorSheet from "./DoorSheet.vue";
import { startAddress } from "@/starred/starred";
import { useSession } from "./session";

const session = useSession();
const router = useRouter();
const route = useRoute();
const name = ref("");
const password = ref("");
const code = ref("");
/** Name and password are right, and the person has a second factor. */
const needsCode = ref(false);
const { busy, error, run } = useAction();

async function signIn() {
  const ok = await run(async () => {
    const answer = await api.post<{ person: Person }>("session", {
      name: name.value,
      password: password.value,
      code: code.value || null,
    });
    await session.enter(answer.person);
  });
  if (!ok && error.value instanceof Refusal && error.value.kind === "second-factor") {
    if (!needsCode.value) {
      error.value = undefined;
    }
    needsCode.value = true;
    code.value = "";
  }
  if (ok) {
    const then =
      typeof route.query.then === "string" && route.query.then.startsWith("/") && !route.query.then.startsWith("//")
        ? route.query.then
        : startAddress();
    await router.push(then);
  }
}
</script>

<template>
  <DoorSheet :title="t('Sign in')">
    <el-form label-position="top" @submit.prevent="signIn">
      <el-form-item :label="t('Name')" for="name"
        ><el-input id="name" v-model="name" autocomplete="username" autofocus
      /></el-form-item>
      <PasswordField id="password" v-model="password" :label="t('Password')" />
      <el-form-item v-if="needsCode" :label="t('Code of your authenticator app, or a recovery code')" for="code">
        <el-input id="code" v-model="code" autocomplete="one-time-code" inputmode="text" autofocus />
      </el-form-item>
      <div class="stack">
        <ProblemNote :error="error" />
        <el-button
          type="primary"
          native-type="submit"
          :loading="busy"
          :disabled="!name || !password || (needsCode && !code)"
          >{{ t("Sign in") }}</el-button
        >
      </div>
    </el-form>
    <p>
      <RouterLink to="/reset">{{ t("Forgot password") }}</RouterLink>
    </p>
    <p class="soft small">{{ t("No account? Ask whoever looks after this instance for an invitation.") }}</p>
  </DoorSheet>
</template>
