<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Point } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { computed, reactive, ref } from "vue";

/** Records what points measure while the condition of the machine is known: over a past period, or from now on. */
const { points } = defineProps<{ points: Point[] }>();
const emit = defineEmits<{ close: [] }>();
const { busy, error, run } = useAction();
const chosen = ref(points.filter((one) => one.quantity === points[0]?.quantity).map((one) => one.id));
const form = reactive({
  name: "",
  good: true,
  when: "ahead" as "ahead" | "past",
  minutes: 60,
  range: undefined as [Date, Date] | undefined,
  note: "",
});
const ready = computed(
  () => form.name.trim() !== "" && chosen.value.length > 0 && (form.when === "ahead" || form.range !== undefined),
);

async function save() {
  const period =
    form.when === "past" && form.range
      ? { from: form.range[0].toISOString(), until: form.range[1].toISOString() }
      : { seconds: form.minutes * 60 };
  const done = await run(
    () =>
      api.post("baselines", { pointIds: chosen.value, name: form.name, good: form.good, note: form.note, ...period }),
    form.when === "past" ? t("Baseline recorded.") : t("Recording has started."),
  );
  if (done) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Record a baseline')"
    :save-label="t('Record')"
    :error="error"
    :busy="busy"
    :disabled="!ready"
    @save="save"
    @close="emit('close')"
  >
    <p class="soft small">
      {{
        t(
          "A baseline holds the usual values of a known condition. Later values are compared with it, and a rule can alert on a change.",
        )
      }}
    </p>
    <el-form-item :label="t('Condition')" for="baseline-name">
      <el-input id="baseline-name" v-model="form.name" maxlength="100" :placeholder="t('after the overhaul')" />
    </el-form-item>
    <el-form-item :label="t('This condition is')">
      <el-radio-group v-model="form.good" :aria-label="t('This condition is')">
        <el-radio-button :value="true">{{ t("good") }}</el-radio-button>
        <el-radio-button :value="false">{{ t("bad") }}</el-radio-button>
      </el-radio-group>
      <span class="soft small hint">{{
        form.good ? t("The points are compared with it from now on.") : t("It is kept to compare with by eye.")
      }}</span>
    </el-form-item>
    <el-form-item v-if="points.length > 1" :label="t('Points')" for="baseline-points">
      <el-select id="baseline-points" v-model="chosen" multiple :aria-label="t('Points')">
        <el-option v-for="one in points" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Period')">
      <el-radio-group v-model="form.when" :aria-label="t('Period')">
        <el-radio-button value="ahead">{{ t("from now on") }}</el-radio-button>
        <el-radio-button value="past">{{ t("in the past") }}</el-radio-button>
      </el-radio-group>
    </el-form-item>
    <el-form-item v-if="form.when === 'ahead'" :label="t('Duration (minutes)')" for="baseline-minutes">
      <el-input-number id="baseline-minutes" v-model="form.minutes" :min="1" :max="44640" :aria-label="t('minutes')" />
    </el-form-item>
    <el-form-item v-else :label="t('From and until')">
      <el-date-picker
        v-model="form.range"
        type="datetimerange"
        :aria-label="t('From and until')"
        :start-placeholder="t('from')"
        :end-placeholder="t('until')"
        format="YYYY-MM-DD HH:mm"
      />
    </el-form-item>
    <el-form-item :label="t('Note')" for="baseline-note">
      <el-input id="baseline-note" v-model="form.note" maxlength="500" />
    </el-form-item>
  </FormDialog>
</template>

<style scoped>
.hint {
  margin-left: 0.75rem;
}
</style>
