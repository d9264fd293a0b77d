<script setup lang="ts">
import { theme, typeSize } from "@/look/appearance";

/** How the console looks on this device. */
</script>

<template>
  <section class="sheet">
    <h2>Appearance</h2>
    <p class="soft">Applies to this browser only.</p>
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
</template>
