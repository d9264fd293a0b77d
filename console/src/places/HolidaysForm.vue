<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Holiday, Holidays, Place } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, ref, useTemplateRef } from "vue";

/** The holidays of a site: from a calendar file, or typed; those that are over are folded away. */
const { site } = defineProps<{ site: Place }>();
const emit = defineEmits<{ close: [saved: boolean] }>();
const { busy, error, run } = useAction();
const days = ref<Holiday[]>([]);
const date = ref("");
const name = ref("");
const input = useTemplateRef<HTMLInputElement>("input");
const { data, error: problem } = useLoad(async () => {
  const known = await api.get<Holidays>(`sites/${site.id}/holidays`);
  days.value = known.days;
  return known;
});
const today = computed(() => new Date(now.value).toISOString().slice(0, 10));
const coming = computed(() => days.value.filter((day) => day.date >= today.value));
const over = computed(() => days.value.length - coming.value.length);
const rules = computed(() => data.value?.rules ?? []);

function merge(more: Holiday[]) {
  const all = new Map(days.value.map((day) => [day.date, day]));
  more.forEach((day) => all.set(day.date, day));
  days.value = [...all.values()].sort((one, other) => one.date.localeCompare(other.date));
}

function add() {
  merge([{ date: date.value, name: name.value.trim() }]);
  date.value = "";
  name.value = "";
}

async function read(event: Event) {
  const chosen = event.target as HTMLInputElement;
  const file = chosen.files?.[0];
  if (file) {
    await run(async () =>
      merge((await api.picture<Holidays>(`sites/${site.id}/holidays/file?dryRun=true`, new Blob([file]))).days),
    );
  }
  chosen.value = "";
}

async function save() {
  if (await run(() => api.put(`sites/${site.id}/holidays`, { days: days.value }), t("Saved."))) {
    emit("close", true);
  }
}

const written = (day: string) =>
  new Date(day + "T12:00:00Z").toLocaleDateString(undefined, {
    weekday: "short",
    day: "numeric",
    month: "short",
    year: "numeric",
    timeZone: "UTC",
  });
</script>

<template>
  <FormDialog
    :title="t('Holidays of {name}', { name: site.name })"
    :error="error"
    :busy="busy"
    :disabled="!data"
    @save="save"
    @close="emit('close', false)"
  >
    <p class="soft">
      {{ t("Rules that are active on some days of the week leave these days out.") }}
      <template v-if="rules.length">{{ t("Here: {join}.", { join: rules.join(", ") }) }}</template>
    </p>
    <ProblemNote :error="problem" />
    <div class="row add">
      <el-input v-model="date" type="date" :aria-label="t('Date')" class="date" />
      <el-input
        v-model="name"
        :aria-label="t('Name')"
        :placeholder="t('Name, such as Boxing Day')"
        @keydown.enter.prevent="date && add()"
      />
      <el-button :disabled="!date" @click="add">{{ t("Add day") }}</el-button>
    </div>
    <p>
      <el-button :disabled="busy" @click="input?.click()">{{ t("Add from a file …") }}</el-button>
      <span class="soft small"> {{ t("calendar file (.ics), or lines such as 2026-12-25,Christmas Day") }}</span>
      <input ref="input" type="file" accept=".ics,.csv,.txt,text/calendar,text/csv" hidden @change="read" />
    </p>
    <table v-if="coming.length" class="rows">
      <thead>
        <tr>
          <th>{{ t("Date") }}</th>
          <th>{{ t("Name") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="day in coming" :key="day.date">
          <td>{{ written(day.date) }}</td>
          <td>{{ day.name }}</td>
          <td>
            <el-button
              link
              :aria-label="t('Remove {name}', { name: day.name || day.date })"
              @click="days = days.filter((one) => one !== day)"
              >{{ t("Remove") }}</el-button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="data" class="soft">{{ t("No holidays ahead.") }}</p>
    <p v-if="over" class="soft small">
      {{ t("And {n} day that is over. | And {n} days that are over.", { n: over }) }}
      <el-button link @click="days = coming">{{ t("Remove them") }}</el-button>
    </p>
  </FormDialog>
</template>

<style scoped>
.add {
  flex-wrap: wrap;
}
.date {
  width: 160px;
  flex: none;
}
.add > :nth-child(2) {
  flex: 1 1 180px;
}
</style>
