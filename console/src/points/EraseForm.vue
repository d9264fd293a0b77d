<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Point } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import { count } from "@/records/amounts";
import { computed, ref, watch } from "vue";

/** Takes readings of a range out of the record, after saying how many. It can be undone. */
const { point } = defineProps<{ point: Point }>();
const emit = defineEmits<{ close: [] }>();
const range = ref<[Date, Date]>();
const note = ref("");
const found = ref<number>();
const waveforms = ref(0);
const { busy, error, run } = useAction();

const request = computed(() => ({
  from: range.value?.[0].toISOString(),
  until: range.value?.[1].toISOString(),
  note: note.value || t("no reason given"),
}));

watch(range, async () => {
  found.value = undefined;
  if (range.value) {
    await run(async () => {
      const answer = await api.post<{ readings: number; waveforms: number }>(`points/${point.id}/erase`, {
        ...request.value,
        dryRun: true,
      });
      found.value = answer.readings;
      waveforms.value = answer.waveforms;
    });
  }
});

async function erase() {
  const done = await run(
    () => api.post(`points/${point.id}/erase`, { ...request.value, dryRun: false }),
    t("Erased. It can be undone under Records."),
  );
  if (done) {
    emit("close");
  }
}
</script>

<template>
  <el-dialog :model-value="true" :title="t('Erase readings')" @close="emit('close')">
    <el-form label-position="top" @submit.prevent>
      <el-form-item :label="t('From and until')">
        <el-date-picker
          v-model="range"
          type="datetimerange"
          :aria-label="t('From and until')"
          :start-placeholder="t('from')"
          :end-placeholder="t('until')"
          format="YYYY-MM-DD HH:mm"
        />
      </el-form-item>
      <el-form-item :label="t('Why')" for="erase-note">
        <el-input
          id="erase-note"
          v-model="note"
          maxlength="500"
          :placeholder="t('the probe hung outside for cleaning')"
        />
      </el-form-item>
    </el-form>
    <p v-if="range && found !== undefined" role="status">
      {{
        t("{readings} of {name} between {from} and {until}.", {
          readings: found === 0 ? t("There are no readings") : t("{count} readings", { count: count(found) }),
          name: point.name,
          from: moment(range[0].getTime()),
          until: moment(range[1].getTime()),
        })
      }}
    </p>
    <p v-if="range && waveforms" role="status">
      {{
        t("{waveforms} of that time will be erased too and", {
          waveforms: t("One waveform | {number} waveforms", { n: waveforms, number: count(waveforms) }),
        })
      }}
      <strong>{{ t("cannot be brought back") }}</strong>.
    </p>
    <p class="soft small">{{ t("Readings are kept aside with your name and reason, and can be brought back.") }}</p>
    <ProblemNote :error="error" />
    <template #footer>
      <el-button @click="emit('close')">{{ t("Cancel") }}</el-button>
      <el-button type="danger" :loading="busy" :disabled="(!found && !waveforms) || !note" @click="erase">{{
        t("Erase")
      }}</el-button>
    </template>
  </el-dialog>
</template>
