<script setup lang="ts">
import { t } from "@/language";
import { useSession } from "@/shell/session";
import { computed } from "vue";
import { useRouter } from "vue-router";
import AboutSheet from "./AboutSheet.vue";
import AccountSheet from "./AccountSheet.vue";
import AppearanceSheet from "./AppearanceSheet.vue";
import CamerasSheet from "./CamerasSheet.vue";
import MailSettingsSheet from "./MailSettingsSheet.vue";
import RadioBandSheet from "./RadioBandSheet.vue";
import SecondFactorSheet from "./SecondFactorSheet.vue";
import TextSettingsSheet from "./TextSettingsSheet.vue";
import TokensSheet from "./TokensSheet.vue";
import UnitsSheet from "./UnitsSheet.vue";
import LifeSignSheet from "./LifeSignSheet.vue";
import StartPageSheet from "./StartPageSheet.vue";
import SoundSheet from "./SoundSheet.vue";
import WaysSheet from "./WaysSheet.vue";

/** Settings by section: one's own first, then those of the instance. */
const { section } = defineProps<{ section: string }>();
const session = useSession();
const router = useRouter();
const forOwners = computed(() => !session.owner && ["mail", "text", "life-sign", "cameras", "radio"].includes(section));
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Settings") }}</h1>
    </header>
    <el-tabs :model-value="section" @tab-change="(name) => router.push('/settings/' + name)">
      <el-tab-pane name="appearance" :label="t('Appearance')" lazy
        ><AppearanceSheet /><StartPageSheet /><UnitsSheet
      /></el-tab-pane>
      <el-tab-pane name="account" :label="t('Account')" lazy><AccountSheet /><SecondFactorSheet /></el-tab-pane>
      <el-tab-pane name="notices" :label="t('Notices')" lazy><WaysSheet /><SoundSheet /></el-tab-pane>
      <el-tab-pane name="tokens" :label="t('API tokens')" lazy><TokensSheet /></el-tab-pane>
      <el-tab-pane v-if="session.owner" name="mail" :label="t('Mail server')" lazy><MailSettingsSheet /></el-tab-pane>
      <el-tab-pane v-if="session.owner" name="text" :label="t('Text messages')" lazy><TextSettingsSheet /></el-tab-pane>
      <el-tab-pane v-if="session.owner" name="life-sign" :label="t('Life sign')" lazy><LifeSignSheet /></el-tab-pane>
      <el-tab-pane v-if="session.owner" name="cameras" :label="t('Cameras')" lazy><CamerasSheet /></el-tab-pane>
      <el-tab-pane v-if="session.owner" name="radio" :label="t('Radio band')" lazy><RadioBandSheet /></el-tab-pane>
      <el-tab-pane name="about" :label="t('About')" lazy><AboutSheet /></el-tab-pane>
    </el-tabs>
    <p v-if="forOwners" class="sheet soft">{{ t("Only owners of this instance see and change these settings.") }}</p>
  </div>
</template>
