<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { KeepDays, Keeping } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePoints } from "@/points/points";
import { QUANTITIES } from "@/points/quantities";
import { keptFor } from "./amounts";
import { computed, ref, watch } from "vue";

/** For how long things are kept: all points, and those of which something else is said. */
const emit = defineEmits<{ changed: [] }>();
const {
  data,
  error: loadError,
  load,
} = useLoad(() => api.get<{ settings: Keeping; dailyFolder: string }>("records/keeping"));
const form = ref<Keeping>();
const other = ref("");
const { busy, error, run } = useAction();
const points = usePoints();
watch(data, (found) => found && (form.value = structuredClone(found.settings)));

const KINDS = ["detail", "hours", "days"] as const;
const NAMES = { detail: t("every reading"), hours: "hours", days: "days" };

interface Row {
  key: string;
  name: string;
  days: KeepDays;
  remove?: () => void;
}

const rows = computed<Row[]>(() => {
  const now = form.value;
  if (!now) {
    return [];
  }
  return [
    { key: "", name: t("all points"), days: now.standard },
    ...Object.entries(now.quantities).map(([id, days]) => ({
      key: "q:" + id,
      name: QUANTITIES[id] ?? id,
      days,
      remove: () => delete now.quantities[id],
    })),
    ...Object.entries(now.points).map(([id, days]) => ({
      key: "p:" + id,
      name: points.byId.get(id)?.name ?? t("a point"),
      days,
      remove: () => delete now.points[id],
    })),
  ];
});
const choices = computed(() => [
  ...Object.entries(QUANTITIES)
    .filter(([id]) => !form.value?.quantities[id])
    .map(([id, title]) => ({ value: "q:" + id, label: title })),
  ...points.all
    .filter((one) => !form.value?.points[one.id])
    .map((one) => ({ value: "p:" + one.id, label: `${one.path.at(-1) ?? ""}, ${one.name}` })),
]);

function add() {
  const now = form.value;
  if (now && other.value) {
    (other.value.startsWith("q:") ? now.quantities : now.points)[other.value.slice(2)] = { ...now.standard };
    other.value = "";
  }
}

async function save() {
  if (await run(() => api.put("records/keeping", form.value), t("Saved; what is too old goes now."))) {
    await load();
    emit("changed");
  }
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Retention") }}</h2>
    <p class="soft small">
      {{ t("In days; 0 is for ever. When every reading goes its hours stay, and when these go its days stay.") }}
    </p>
    <ProblemNote :error="loadError" />
    <form v-if="form" @submit.prevent="save">
      <table class="rows cards">
        <thead>
          <tr>
            <th>{{ t("Of") }}</th>
            <th>{{ t("Every reading") }}</th>
            <th>{{ t("Hours") }}</th>
            <th>{{ t("Days") }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.key">
            <td>{{ row.name }}</td>
            <td v-for="kind in KINDS" :key="kind" :data-name="NAMES[kind]">
              <el-input-number
                v-model="row.days[kind]"
                :min="0"
                :max="36500"
                :controls="false"
                :aria-label="t('{name}: {kind}, days', { name: row.name, kind: NAMES[kind] })"
              />
              <div class="soft small">{{ keptFor(row.days[kind]) }}</div>
            </td>
            <td>
              <el-button v-if="row.remove" link type="primary" @click="row.remove()">{{ t("like all") }}</el-button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="row">
        <el-select
          v-model="other"
          filterable
          :placeholder="t('another quantity or point')"
          :aria-label="t('Keep another for a time of its own')"
        >
          <el-option v-for="one in choices" :key="one.value" :value="one.value" :label="one.label" />
        </el-select>
        <el-button :disabled="!other" @click="add">{{ t("Add") }}</el-button>
      </p>
      <p class="row">
        <label for="frame-days">{{ t("Raw frames") }}</label>
        <el-input-number
          id="frame-days"
          v-model="form.frameDays"
          :min="0"
          :max="36500"
          :controls="false"
          :aria-label="t('Raw frames, days')"
        />
        <span class="soft small">{{
          t("{keptFor}; frames can be read again as long as they are kept", { keptFor: keptFor(form.frameDays) })
        }}</span>
      </p>
      <p class="row">
        <el-checkbox v-model="form.dailyFiles">{{ t("A CSV file for each site and day, after midnight") }}</el-checkbox>
        <template v-if="form.dailyFiles">
          <el-input-number
            v-model="form.dailyFileDays"
            :min="0"
            :max="36500"
            :controls="false"
            :aria-label="t('Files of the day, days')"
          />
          <span class="soft small"
            >{{ t("{keptFor}, in", { keptFor: keptFor(form.dailyFileDays) }) }}
            <span class="mono">{{ data?.dailyFolder }}</span></span
          >
        </template>
      </p>
      <ProblemNote :error="error" />
      <el-button type="primary" native-type="submit" :loading="busy">{{ t("Save") }}</el-button>
    </form>
  </section>
</template>

<style scoped>
.el-input-number {
  width: 6rem;
}
.el-select {
  width: 20rem;
  max-width: 100%;
}
.mono {
  overflow-wrap: anywhere;
}
</style>
