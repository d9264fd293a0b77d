<script setup lang="ts">
import { api } from "@/api/http";
import type { Person } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import DoorSheet from "./DoorSheet.vue";
import { useSession } from "./session";

const session = useSession();
const router = useRouter();
const route = useRoute();
const name = ref("");
const password = ref("");
const { busy, error, run } = useAction();

async function signIn() {
  const ok = await run(async () => {
    const answer = await api.post<{ person: Person }>("session", { name: name.value, password: password.value });
    await session.enter(answer.person);
  });
  if (ok) {
    const then =
      typeof route.query.then === "string" && route.query.then.startsWith("/") && !route.query.then.startsWith("//")
        ? route.query.then
        : "/now";
    await router.push(then);
  }
}
</script>

<template>
  <DoorSheet title="Sign in">
    <el-form label-position="top" @submit.prevent="signIn">
      <el-form-item label="Name" for="name"
        ><el-input id="name" v-model="name" autocomplete="username" autofocus
      /></el-form-item>
      <el-form-item label="Password" for="password">
        <el-input id="password" v-model="password" type="password" autocomplete="current-password" show-password />
      </el-form-item>
      <div class="stack">
        <ProblemNote :error="error" />
        <el-button type="primary" native-type="submit" :loading="busy" :disabled="!name || !password"
          >Sign in</el-button
        >
      </div>
    </el-form>
    <p class="soft small">No account? Ask whoever looks after this instance for an invitation.</p>
  </DoorSheet>
</template>
