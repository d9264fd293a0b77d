<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { useAction } from "@/look/act";
import PasswordField from "@/look/PasswordField.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import DoorSheet from "./DoorSheet.vue";

/** Another password by mail: asks for a code, and takes it. The code stands behind the #, which browsers send to nobody. */
const router = useRouter();
const token = ref(useRoute().hash.slice(1));
const entering = ref(token.value !== "");
const asked = ref(false);
const name = ref("");
const password = ref("");
const { busy, error, run } = useAction();

async function ask() {
  asked.value = await run(() => api.post("password-reset", { name: name.value }));
  entering.value = asked.value;
}

async function change() {
  const ok = await run(
    () => api.post("password-reset/taken-up", { token: token.value, password: password.value }),
    t("The password is changed. Sign in with it."),
  );
  if (ok) {
    await router.push("/sign-in");
  }
}
</script>

<template>
  <DoorSheet :title="t('New password')">
    <template v-if="entering">
      <p v-if="asked" class="soft" role="status">
        {{
          t("If there is an account “{name}” with an e-mail address, a code is on its way. It works for one hour.", {
            name,
          })
        }}
      </p>
      <el-form label-position="top" @submit.prevent="change">
        <el-form-item :label="t('Code from the mail')" for="reset-code"
          ><el-input id="reset-code" v-model="token" autocomplete="off" class="mono" autofocus
        /></el-form-item>
        <PasswordField
          id="reset-password"
          v-model="password"
          :label="t('New password, at least 10 characters')"
          chosen
        />
        <div class="stack">
          <ProblemNote :error="error" />
          <el-button type="primary" native-type="submit" :loading="busy" :disabled="!token || password.length < 10">{{
            t("Change password")
          }}</el-button>
        </div>
      </el-form>
    </template>
    <template v-else>
      <p class="soft">{{ t("Enter your name. A code is sent to the e-mail address of your account.") }}</p>
      <el-form label-position="top" @submit.prevent="ask">
        <el-form-item :label="t('Name')" for="reset-name"
          ><el-input id="reset-name" v-model="name" autocomplete="username" autofocus
        /></el-form-item>
        <div class="stack">
          <ProblemNote :error="error" />
          <el-button type="primary" native-type="submit" :loading="busy" :disabled="!name">{{
            t("Send code")
          }}</el-button>
          <el-button @click="entering = true">{{ t("I have a code") }}</el-button>
        </div>
      </el-form>
      <p class="soft small">
        {{
          t(
            "No e-mail address? Ask whoever manages this instance for a new invitation. An owner runs “pasture owner reset” on the machine.",
          )
        }}
      </p>
    </template>
    <p>
      <RouterLink to="/sign-in">{{ t("Back to sign-in") }}</RouterLink>
    </p>
  </DoorSheet>
</template>
