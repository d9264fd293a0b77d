<script setup lang="ts">
import { t } from "@/language";
import type { Alert } from "@/api/types";
import { age, moment, now } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import LinkedText from "@/look/LinkedText.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import AcknowledgeForm from "./AcknowledgeForm.vue";
import { STATES } from "./states";

/** An open alert: what, where, since when, what to do, and the button to take it on. */
const { alert } = defineProps<{ alert: Alert }>();
const places = usePlaces();
const answering = ref(false);
const mayAct = computed(() => places.may("operate", alert.placeId));
</script>

<template>
  <article class="sheet card" :class="alert.severity">
    <FenceMark class="mark" :severity="alert.severity" />
    <div class="what">
      <h2>
        <RouterLink :to="`/alerts/${alert.id}`">{{ alert.summary }}</RouterLink>
      </h2>
      <p class="soft small">
        {{
          t("{place} · since {moment} ({age}) · {state}", {
            place: alert.path.join(", "),
            moment: moment(alert.startedAt, places.zoneOf(alert.placeId)),
            age: age(alert.startedAt, now),
            state: STATES[alert.state],
          })
        }}
        <template v-if="alert.acknowledgedBy">
          {{ t("by {acknowledgedBy}", { acknowledgedBy: alert.acknowledgedBy }) }}</template
        >
        <template v-if="alert.shelf">
          {{
            alert.shelf.until
              ? t("until {moment}", { moment: moment(alert.shelf.until, places.zoneOf(alert.placeId)) })
              : ""
          }}:
          {{ alert.shelf.reason }}
        </template>
        <template v-if="alert.assignedTo">
          · {{ t("assigned to {assignedTo}", { assignedTo: alert.assignedTo }) }}</template
        >
      </p>
      <p v-if="alert.guidance" class="todo"><LinkedText :text="alert.guidance" /></p>
      <p v-if="alert.notes.length" class="note">
        “{{ alert.notes.at(-1)?.text }}” <span class="soft small">{{ alert.notes.at(-1)?.person }}</span>
      </p>
    </div>
    <el-button v-if="mayAct && !alert.acknowledgedAt" type="primary" @click="answering = true">{{
      t("Acknowledge")
    }}</el-button>
    <AcknowledgeForm v-if="answering" :alert="alert" @close="answering = false" />
  </article>
</template>

<style scoped>
.card {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 0.4rem 1rem;
  border-left-width: 6px;
}
.card.advisory {
  border-left-color: var(--advisory);
}
.card.warning {
  border-left-color: var(--warning);
}
.card.critical {
  border-left-color: var(--critical);
}
.mark {
  min-width: 6rem;
  padding-top: 0.1rem;
}
.what {
  flex: 1 1 20rem;
}
h2 {
  margin: 0;
}
h2 a {
  color: inherit;
  text-decoration-color: var(--line-strong);
}
p {
  margin: 0.25rem 0 0;
}
.todo {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.note {
  font-style: italic;
}
</style>
