<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Invitation } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import ShownOnce from "@/look/ShownOnce.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive, ref } from "vue";
import { RIGHT_CHOICES } from "./rights";

/** Invites somebody with a right on a place; the link is shown once. */
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const targets = computed(() => places.places.filter((place) => place.right === "manage"));
const form = reactive({ name: "", email: "", right: "look", targetId: targets.value[0]?.id ?? "" });
const made = ref<Invitation>();
const { busy, error, run } = useAction();

async function invite() {
  await run(async () => {
    made.value = await api.post<Invitation>("invitations", { ...form, email: form.email || null });
  });
}
</script>

<template>
  <el-dialog model-value :title="t('Invite somebody')" @close="emit('close')">
    <ShownOnce
      v-if="made"
      :label="
        t('Hand this link to {name}{mail}. It is shown this once and works once.', {
          name: made.name,
          mail: made.email ? t('; it also goes to {email} by mail', { email: made.email }) : '',
        })
      "
      :value="made.link ?? ''"
    />
    <el-form v-else label-position="top" @submit.prevent="invite">
      <el-form-item :label="t('Name')" for="invite-name"
        ><el-input id="invite-name" v-model="form.name"
      /></el-form-item>
      <el-form-item :label="t('E-mail (may be empty; then hand over the link)')" for="invite-mail"
        ><el-input id="invite-mail" v-model="form.email" type="email"
      /></el-form-item>
      <el-form-item :label="t('Right')" for="invite-right">
        <el-select id="invite-right" v-model="form.right" :aria-label="t('Right')">
          <el-option v-for="[right, label] in RIGHT_CHOICES" :key="right" :value="right" :label="label" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('On')" for="invite-target">
        <el-select id="invite-target" v-model="form.targetId" filterable :aria-label="t('On')">
          <el-option v-for="place in targets" :key="place.id" :value="place.id" :label="places.label(place)" />
        </el-select>
      </el-form-item>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">{{ made ? t("Done") : t("Cancel") }}</el-button>
      <el-button v-if="!made" type="primary" :loading="busy" :disabled="!form.name || !form.targetId" @click="invite">{{
        t("Invite")
      }}</el-button>
    </template>
  </el-dialog>
</template>
