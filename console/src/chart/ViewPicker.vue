<script setup lang="ts">
import { t } from "@/language";
import { instantOf, wallClock, type WallClock } from "@/look/wallClock";
import { computed, ref, watch } from "vue";
import RangePicker from "./RangePicker.vue";
import { moved, words } from "./timeRange";
import type { View } from "./view";

/** Chooses the time that a page looks at: the last hours, days by the calendar of the site, earlier, later, and back. */
const {
  view,
  timeZone,
  own = false,
} = defineProps<{
  view: View;
  /** That of the site; without one, this browser's. */
  timeZone?: string;
  /** Whether each panel may keep to what is set for it. */
  own?: boolean;
}>();

const open = ref(false);
const from = ref("");
const until = ref("");
const wrong = ref("");
const hours = computed({
  get: () => (view.chosen.value ? -1 : view.hours.value),
  set: view.showLast,
});

/** As a field for a day with its time has it: 2026-11-30T14:05. */
function fieldOf(at: number): string {
  const [year, ...rest] = wallClock(at, timeZone);
  const [month, day, hour, minute] = rest.map((part) => String(part).padStart(2, "0"));
  return `${String(year).padStart(4, "0")}-${month}-${day}T${hour}:${minute}`;
}

function instantIn(field: string): number {
  const parts = field.split(/[-T:]/).map(Number);
  return parts.length < 5 ? NaN : instantOf([...parts, 0].slice(0, 6) as WallClock, timeZone);
}

watch(open, (now) => {
  if (now) {
    const seen = view.current();
    from.value = fieldOf(seen.from);
    until.value = fieldOf(seen.until);
    wrong.value = "";
  }
});

function choose() {
  const [first, last] = [instantIn(from.value), instantIn(until.value)];
  if (!(first < last)) {
    wrong.value = t("The end must be after the start.");
  } else if (first >= Date.now()) {
    wrong.value = t("The start is in the future.");
  } else {
    view.show({ from: first, until: last });
    open.value = false;
  }
}

const step = (part: number) => view.show(moved(view.current(), part));
</script>

<template>
  <div class="view-picker">
    <RangePicker v-model="hours" :own="own" />
    <div class="steps">
      <el-button :aria-label="t('Earlier')" :title="t('Earlier')" @click="step(-1)">‹</el-button>
      <el-button :aria-label="t('Later')" :title="t('Later')" :disabled="!view.chosen.value" @click="step(1)"
        >›</el-button
      >
      <el-popover v-model:visible="open" trigger="click" :width="310" placement="bottom">
        <template #reference>
          <el-button :type="view.chosen.value ? 'primary' : undefined" :aria-expanded="open">{{
            t("Choose dates …")
          }}</el-button>
        </template>
        <form class="stack" @submit.prevent="choose">
          <label>{{ t("From") }} <input v-model="from" type="datetime-local" required /></label>
          <label>{{ t("Until") }} <input v-model="until" type="datetime-local" required /></label>
          <p v-if="wrong" role="alert" class="small">{{ wrong }}</p>
          <p v-if="timeZone" class="soft small">{{ t("On the clock of {timeZone}.", { timeZone }) }}</p>
          <el-button type="primary" native-type="submit">{{ t("Show this time") }}</el-button>
        </form>
      </el-popover>
      <el-button v-if="view.mayGoBack.value" @click="view.back">{{ t("Back") }}</el-button>
    </div>
    <span v-if="view.chosen.value" class="soft small" role="status">{{ words(view.chosen.value, timeZone) }}</span>
  </div>
</template>

<style scoped>
.view-picker,
.steps {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.6rem;
}
.steps .el-button {
  margin: 0;
}
label {
  display: grid;
  gap: 0.2rem;
}
input {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  padding: 0.35rem 0.5rem;
  min-height: 40px;
}
form p {
  margin: 0;
}
</style>
