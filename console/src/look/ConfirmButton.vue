<script setup lang="ts">
import { t } from "@/language";
/** A button that says what will happen before it does it. */
const { link = false, action = t("Remove") } = defineProps<{
  /** What will happen. */
  says: string;
  /** What the button does, in a word; the label where the slot is empty. */
  action?: string;
  link?: boolean;
}>();
const emit = defineEmits<{ confirm: [] }>();
</script>

<template>
  <el-popconfirm
    :title="says"
    width="260"
    :confirm-button-text="action"
    :cancel-button-text="t('Keep')"
    @confirm="emit('confirm')"
  >
    <template #reference
      ><el-button :link="link"
        ><slot>{{ action }}</slot></el-button
      ></template
    >
  </el-popconfirm>
</template>
