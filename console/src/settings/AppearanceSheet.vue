<script setup lang="ts">
import { t } from "@/language";
import LanguageChoice from "@/language/LanguageChoice.vue";
import { theme, typeSize } from "@/look/appearance";

/** How the console looks on this device. */
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Appearance") }}</h2>
    <p class="soft">{{ t("Applies to this browser only.") }}</p>
    <div class="row">
      <el-radio-group v-model="theme" :aria-label="t('Colours')">
        <el-radio-button value="system">{{ t("as the system") }}</el-radio-button>
        <el-radio-button value="light">{{ t("light") }}</el-radio-button>
        <el-radio-button value="dark">{{ t("dark") }}</el-radio-button>
      </el-radio-group>
      <el-radio-group v-model="typeSize" :aria-label="t('Type size')">
        <el-radio-button :value="16">{{ t("usual type") }}</el-radio-button>
        <el-radio-button :value="19">{{ t("larger") }}</el-radio-button>
        <el-radio-button :value="22">{{ t("largest") }}</el-radio-button>
      </el-radio-group>
    </div>
    <LanguageChoice />
  </section>
</template>
