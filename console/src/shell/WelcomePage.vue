<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Person } from "@/api/types";
import { useAction } from "@/look/act";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import DoorSheet from "./DoorSheet.vue";
import { useSession } from "./session";

/** Takes an invitation up. Its token stands behind the #, which browsers send to nobody. */
const session = useSession();
const router = useRouter();
const token = useRoute().hash.slice(1);
const name = ref("");
const password = ref("");
const { busy, error, run } = useAction();

async function accept() {
  const ok = await run(async () => {
    const answer = await api.post<{ person: Person }>("invitations/taken-up", {
      token,
      name: name.value,
      password: password.value,
    });
    await session.enter(answer.person);
  });
  if (ok) {
    await router.push("/now");
  }
}
</script>

<template>
  <DoorSheet :title="t('You are invited')">
    <p class="soft">{{ t("Choose a name and a password to sign in with.") }}</p>
    <el-form label-position="top" @submit.prevent="accept">
      <el-form-item :label="t('Name')" for="name"
        ><el-input id="name" v-model="name" autocomplete="username" autofocus
      /></el-form-item>
      <PasswordField id="password" v-model="password" :label="t('Password, at least 10 characters')" chosen />
      <div class="stack">
        <ProblemNote :error="error" />
        <el-button type="primary" native-type="submit" :loading="busy" :disabled="!name || !password">{{
          t("Accept invitation")
        }}</el-button>
      </div>
    </el-form>
  </DoorSheet>
</template>
