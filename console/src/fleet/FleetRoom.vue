<script setup lang="ts">
import { t } from "@/language";
import { useRouter } from "vue-router";
import DeviceList from "@/devices/DeviceList.vue";
import DataHealthRoom from "@/health/DataHealthRoom.vue";
import FrameList from "@/frames/FrameList.vue";
import GatewayList from "@/gateways/GatewayList.vue";
import InletList from "@/inlets/InletList.vue";
import OutletList from "@/outlets/OutletList.vue";
import ModelList from "@/models/ModelList.vue";
import WorkbenchRoom from "@/models/WorkbenchRoom.vue";

/** Gateways first: a sensor is often blamed when its gateway never connected. */
defineProps<{ tab: string }>();
const router = useRouter();
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Fleet") }}</h1>
    </header>
    <el-tabs :model-value="tab" @tab-change="(name) => router.push('/fleet/' + name)">
      <el-tab-pane name="gateways" :label="t('Gateways')" lazy><GatewayList /></el-tab-pane>
      <el-tab-pane name="inlets" :label="t('Inlets')" lazy><InletList /></el-tab-pane>
      <el-tab-pane name="outlets" :label="t('Outlets')" lazy><OutletList /></el-tab-pane>
      <el-tab-pane name="devices" :label="t('Devices')" lazy><DeviceList /></el-tab-pane>
      <el-tab-pane name="health" :label="t('Data health')" lazy><DataHealthRoom v-if="tab === 'health'" /></el-tab-pane>
      <el-tab-pane name="frames" :label="t('Incoming')" lazy><FrameList v-if="tab === 'frames'" /></el-tab-pane>
      <el-tab-pane name="models" :label="t('Models')" lazy><ModelList /></el-tab-pane>
      <el-tab-pane name="workbench" :label="t('Workbench')" lazy
        ><WorkbenchRoom v-if="tab === 'workbench'"
      /></el-tab-pane>
    </el-tabs>
  </div>
</template>
