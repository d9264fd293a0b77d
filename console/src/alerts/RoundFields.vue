<script setup lang="ts">
import { t } from "@/language";
import type { ActiveHours, PossibleRecipient, Round } from "@/api/types";
import HoursFields from "./HoursFields.vue";
import { usualHours } from "./states";
import RecipientsField from "./RecipientsField.vue";

/** Who else is notified while nobody acknowledges, or who is on duty: after so many minutes, these, in these hours. */
defineProps<{ people: PossibleRecipient[] }>();
const rounds = defineModel<(Pick<Round, "afterMinutes" | "recipients"> & { hours: ActiveHours | null })[]>({
  required: true,
});
</script>

<template>
  <div v-for="(round, i) in rounds" :key="i" class="round">
    <div class="when">
      <span>{{ t("After") }}</span>
      <el-input-number
        v-model="round.afterMinutes"
        :min="round.hours ? 0 : 1"
        :max="1440"
        :controls="false"
        :aria-label="t('Minutes until round {number}', { number: i + 1 })"
      />
      <span>{{ round.hours ? t("min to") : t("min also to") }}</span>
    </div>
    <RecipientsField
      v-model="round.recipients"
      :label="t('Recipients of round {number}', { number: i + 1 })"
      :people="people"
    />
    <el-button text :aria-label="t('Remove round {number}', { number: i + 1 })" @click="rounds.splice(i, 1)">{{
      t("Remove")
    }}</el-button>
    <HoursFields
      v-model="round.hours"
      :label="t('Hours of round {number}', { number: i + 1 })"
      :always="t('at any hour')"
      class="duty"
    />
  </div>
  <p class="add">
    <el-button @click="rounds.push({ afterMinutes: 15 * (rounds.length + 1), recipients: [], hours: null })">{{
      t("Add recipients for when nobody acknowledges")
    }}</el-button>
    <el-button @click="rounds.push({ afterMinutes: 0, recipients: [], hours: usualHours() })">{{
      t("Add who is on duty")
    }}</el-button>
  </p>
</template>

<style scoped>
.round {
  display: grid;
  grid-template-columns: auto minmax(8rem, 1fr) auto;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 1rem;
}
.when {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}
.when .el-input-number {
  width: 5rem;
}
.duty {
  grid-column: 1 / -1;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.add .el-button {
  margin: 0;
}
@media (max-width: 600px) {
  .round {
    grid-template-columns: 1fr auto;
  }
  .round > .el-select {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
