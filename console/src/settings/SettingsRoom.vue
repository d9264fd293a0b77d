<script setup lang="ts">
import { theme, typeSize } from "@/look/appearance";
import { useSession } from "@/shell/session";
import AccountSheet from "./AccountSheet.vue";
import MailSettingsSheet from "./MailSettingsSheet.vue";
import RadioBandSheet from "./RadioBandSheet.vue";
import SecondFactorSheet from "./SecondFactorSheet.vue";
import TokensSheet from "./TokensSheet.vue";

const session = useSession();
</script>

<template>
  <div class="page">
    <header class="page-head"><h1>Settings</h1></header>
    <section class="sheet">
      <h2>Appearance</h2>
      <div class="row">
        <el-radio-group v-model="theme" aria-label="Colours">
          <el-radio-button value="system">as the system</el-radio-button>
          <el-radio-button value="light">light</el-radio-button>
          <el-radio-button value="dark">dark</el-radio-button>
        </el-radio-group>
        <el-radio-group v-model="typeSize" aria-label="Type size">
          <el-radio-button :value="16">usual type</el-radio-button>
          <el-radio-button :value="19">larger</el-radio-button>
          <el-radio-button :value="22">largest</el-radio-button>
        </el-radio-group>
      </div>
    </section>
    <AccountSheet />
    <SecondFactorSheet />
    <TokensSheet />
    <section v-if="session.owner" class="sheet">
      <h2>Records and backups</h2>
      <p class="soft">How much is kept and for how long, when the disk is full, backups, and what people changed.</p>
      <RouterLink to="/records">Open the records</RouterLink>
    </section>
    <RadioBandSheet v-if="session.owner" />
    <MailSettingsSheet v-if="session.owner" />
  </div>
</template>
