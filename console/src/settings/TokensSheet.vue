<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Token } from "@/api/types";
import { useAction } from "@/look/act";
import { day } from "@/look/clock";
import { useLoad } from "@/look/load";
import ConfirmButton from "@/look/ConfirmButton.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { reactive, ref } from "vue";

/** Tokens by which other programs ask in one's name. */
const tokens = useLoad(() => api.get<Token[]>("tokens"));
const places = usePlaces();
const form = reactive({ name: "", right: "look", places: [] as string[], days: 90 });
const made = ref<Token>();
const { busy, error, run } = useAction();
const RIGHTS = { look: t("may look"), operate: t("may operate"), edit: t("may edit") };

async function make() {
  await run(async () => {
    made.value = await api.post<Token>("tokens", { ...form });
  }, t("Token created."));
  if (made.value) {
    form.name = "";
  }
  await tokens.load();
}

async function withdraw(token: Token) {
  await run(() => api.remove("tokens/" + token.id), t("Token {name} withdrawn.", { name: token.name }));
  await tokens.load();
}

function where(token: Token): string {
  return token.places.length
    ? token.places
        .map((id) => places.places.find((place) => place.id === id)?.name ?? t("a place that is gone"))
        .join(", ")
    : t("all places");
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("API tokens") }}</h2>
    <p class="soft">
      {{ t("A program uses a token to access the API with your permissions, limited to what the token allows.") }}
    </p>
    <ProblemNote :error="tokens.error.value" />
    <div v-for="token in tokens.data.value" :key="token.id" class="row token">
      <strong>{{ token.name }}</strong>
      <span>{{ RIGHTS[token.right] }}: {{ where(token) }}</span>
      <span class="soft small">{{
        t("until {day}, {used}", {
          day: day(token.until),
          used: token.usedAt ? t("last used {day}", { day: day(token.usedAt) }) : t("never used"),
        })
      }}</span>
      <ConfirmButton
        :says="t('Programs that use it lose access immediately.')"
        :action="t('Withdraw')"
        link
        @confirm="withdraw(token)"
      />
    </div>
    <p v-if="tokens.data.value && !tokens.data.value.length" class="soft">{{ t("No tokens yet.") }}</p>
    <el-alert
      v-if="made"
      type="success"
      :closable="false"
      show-icon
      :title="t('Copy the token now. It is shown only once.')"
    >
      <code class="secret">{{ made.token }}</code>
      <el-button link @click="made = undefined">{{ t("Done") }}</el-button>
    </el-alert>
    <el-form label-position="top" class="form" @submit.prevent="make">
      <el-form-item :label="t('Purpose')" for="token-name"
        ><el-input id="token-name" v-model="form.name" maxlength="120" :placeholder="t('Wall screen in the office')"
      /></el-form-item>
      <el-form-item :label="t('Permission')">
        <el-radio-group v-model="form.right">
          <el-radio-button value="look">{{ t("look") }}</el-radio-button>
          <el-radio-button value="operate">{{ t("operate") }}</el-radio-button>
          <el-radio-button value="edit">{{ t("edit") }}</el-radio-button>
        </el-radio-group>
      </el-form-item>
      <el-form-item :label="t('Places (all that you can access, if none is selected)')" for="token-places">
        <el-select id="token-places" v-model="form.places" multiple filterable>
          <el-option v-for="place in places.places" :key="place.id" :value="place.id" :label="place.name" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('Valid for days')" for="token-days"
        ><el-input-number id="token-days" v-model="form.days" :min="1" :max="365"
      /></el-form-item>
      <el-button native-type="submit" :loading="busy" :disabled="!form.name.trim()">{{ t("Create token") }}</el-button>
    </el-form>
    <ProblemNote :error="error" />
  </section>
</template>

<style scoped>
.form {
  max-width: 28rem;
  margin-top: 1rem;
}
.token {
  min-height: 2.5rem;
  flex-wrap: wrap;
}
.token .el-button {
  min-width: 2.75rem;
  min-height: 2.25rem;
}
.secret {
  display: block;
  overflow-wrap: anywhere;
  user-select: all;
}
</style>
