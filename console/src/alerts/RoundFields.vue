<script setup lang="ts">
import type { PossibleRecipient } from "@/api/types";
import RecipientsField from "./RecipientsField.vue";

/** Who else is notified while nobody acknowledges: after so many minutes, these. */
defineProps<{ people: PossibleRecipient[] }>();
const rounds = defineModel<{ afterMinutes: number; recipients: string[] }[]>({ required: true });
</script>

<template>
  <div v-for="(round, i) in rounds" :key="i" class="round">
    <span>After</span>
    <el-input-number
      v-model="round.afterMinutes"
      :min="1"
      :max="1440"
      :controls="false"
      :aria-label="`Minutes until round ${i + 1}`"
    />
    <span>min also to</span>
    <RecipientsField v-model="round.recipients" :label="`Recipients of round ${i + 1}`" :people="people" />
    <el-button text :aria-label="`Remove round ${i + 1}`" @click="rounds.splice(i, 1)">Remove</el-button>
  </div>
  <p>
    <el-button @click="rounds.push({ afterMinutes: 15 * (rounds.length + 1), recipients: [] })"
      >Add recipients for when nobody acknowledges</el-button
    >
  </p>
</template>

<style scoped>
.round {
  display: grid;
  grid-template-columns: auto 5rem auto minmax(8rem, 1fr) auto;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.5rem;
}
.round .el-input-number {
  width: 5rem;
}
@media (max-width: 600px) {
  .round {
    grid-template-columns: auto 5rem 1fr;
  }
}
</style>
