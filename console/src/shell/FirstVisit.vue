<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Person } from "@/api/types";
import { useAction } from "@/look/act";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { reactive } from "vue";
import { useRouter } from "vue-router";
import DoorSheet from "./DoorSheet.vue";
import { useSession } from "./session";

/** Makes the owner's account with a one-time code, or gives the owner a new password with one. */
const { recovery = false } = defineProps<{ recovery?: boolean }>();
const session = useSession();
const router = useRouter();
const form = reactive({ code: "", name: "", email: "", password: "" });
const { busy, error, run } = useAction();

async function go() {
  const ok = await run(async () => {
    const answer = await api.post<{ person: Person }>(recovery ? "setup/recovery" : "setup", form);
    await session.enter(answer.person);
  });
  if (ok) {
    await router.push("/now");
  }
}
</script>

<template>
  <DoorSheet :title="recovery ? t('Choose a new owner password') : t('Make the owner\'s account')">
    <p v-if="recovery" class="soft">
      {{ t("On the machine where the service runs,") }} <span class="mono">./pasture owner reset</span>
      {{ t("prints a one-time code.") }}
    </p>
    <p v-else class="soft">
      {{
        t(
          "This instance is new. The service printed a one-time code in its log when it started; whoever has it becomes the owner.",
        )
      }}
    </p>
    <el-form label-position="top" @submit.prevent="go">
      <el-form-item :label="t('One-time code')" for="code"
        ><el-input id="code" v-model="form.code" autocomplete="off" autofocus
      /></el-form-item>
      <el-form-item :label="t('Name to sign in with')" for="name"
        ><el-input id="name" v-model="form.name" autocomplete="username"
      /></el-form-item>
      <el-form-item v-if="!recovery" :label="t('E-mail, for notices (may be empty)')" for="email">
        <el-input id="email" v-model="form.email" type="email" autocomplete="email" />
      </el-form-item>
      <PasswordField id="password" v-model="form.password" :label="t('Password, at least 10 characters')" chosen />
      <div class="stack">
        <ProblemNote :error="error" />
        <el-button type="primary" native-type="submit" :loading="busy">{{
          recovery ? t("Set the password") : t("Make the account")
        }}</el-button>
      </div>
    </el-form>
  </DoorSheet>
</template>
