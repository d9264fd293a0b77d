<script setup lang="ts">
import { api } from "@/api/http";
import type { Condition, Hold, Point, Rule, Severity, Target } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive } from "vue";

/** Makes a rule for a point or an asset, or changes one. */
const { rule, point, placeId } = defineProps<{ rule?: Rule; point?: Point; placeId: string }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();

interface Choice {
  key: string;
  label: string;
  target: Target;
  unit: string;
  limits: boolean;
}

/** What can be watched here: all directions of the asset together, or a point. */
const choices = computed<Choice[]>(() => {
  const here = points.ofPlace(placeId);
  const together = [...new Set(here.map((one) => one.quantity))]
    .filter(() => places.byId.get(placeId)?.kind === "asset")
    .map((quantity) => {
      const first = here.find((one) => one.quantity === quantity) as Point;
      return {
        key: quantity,
        label: `All of ${first.quantityTitle}: the worst decides`,
        target: { kind: "asset" as const, assetId: placeId, quantity },
        unit: first.unit,
        limits: first.limitSet !== null,
      };
    });
  const single = here.map((one) => ({
    key: one.id,
    label: one.name,
    target: { kind: "point" as const, pointId: one.id },
    unit: one.unit,
    limits: one.limitSet !== null,
  }));
  return [...together, ...single];
});

const start =
  rule?.target.kind === "point"
    ? rule.target.pointId
    : rule?.target.kind === "asset"
      ? rule.target.quantity
      : (point?.id ?? choices.value[0]?.key ?? "");
const condition = rule?.condition;
const form = reactive({
  key: start,
  name: rule?.name ?? "",
  kind: condition?.kind ?? ("in-zone" as Condition["kind"]),
  limit: condition && "limit" in condition ? condition.limit : (0 as number | undefined),
  low: condition?.kind === "outside" ? condition.low : 0,
  high: condition?.kind === "outside" ? condition.high : 0,
  atLeast: condition?.kind === "in-zone" ? condition.atLeast : ("warning" as Severity),
  silentMinutes:
    condition?.kind === "silent"
      ? condition.seconds / 60
      : condition?.kind === "device-says"
        ? condition.silentSeconds / 60
        : 60,
  holdKind: rule?.hold.kind ?? ("time" as Hold["kind"]),
  holdMinutes: rule?.hold.kind === "time" ? rule.hold.seconds / 60 : 10,
  holdReports: rule?.hold.kind === "reports" ? rule.hold.count : 3,
  deadBand: rule?.deadBand ?? 0,
  severity: rule?.severity ?? ("warning" as Severity),
  recipients: rule?.recipients.join(", ") ?? "",
  guidance: rule?.guidance ?? "",
});
const choice = computed(() => choices.value.find((one) => one.key === form.key));

function conditionOf(): Condition {
  switch (form.kind) {
    case "above":
    case "below":
      return { kind: form.kind, limit: form.limit ?? 0 };
    case "outside":
      return { kind: "outside", low: form.low, high: form.high };
    case "in-zone":
      return { kind: "in-zone", atLeast: form.atLeast };
    case "silent":
      return { kind: "silent", seconds: Math.round(form.silentMinutes * 60) };
    case "faulty":
      return { kind: "faulty" };
    case "device-says":
      return { kind: "device-says", silentSeconds: Math.round(form.silentMinutes * 60) };
  }
}

async function save() {
  const hold: Hold =
    form.holdKind === "reports"
      ? { kind: "reports", count: form.holdReports }
      : { kind: "time", seconds: Math.round(form.holdMinutes * 60) };
  const body = {
    name: form.name,
    target: choice.value?.target,
    condition: conditionOf(),
    hold: form.kind === "silent" || form.kind === "device-says" ? { kind: "time", seconds: 0 } : hold,
    deadBand: form.deadBand,
    severity: form.severity,
    enabled: rule?.enabled ?? true,
    recipients: form.recipients.split(/[,;\s]+/).filter(Boolean),
    guidance: form.guidance,
  };
  if (await run(() => (rule ? api.put("rules/" + rule.id, body) : api.post("rules", body)), "It is watched now.")) {
    emit("close");
  }
}
</script>

<template>
  <el-dialog model-value :title="rule ? 'Change ' + rule.name : 'Add a rule'" @close="emit('close')">
    <el-form label-position="top" @submit.prevent="save">
      <el-form-item label="What is watched" for="rule-target">
        <el-select id="rule-target" v-model="form.key" aria-label="What is watched">
          <el-option v-for="one in choices" :key="one.key" :value="one.key" :label="one.label" />
        </el-select>
      </el-form-item>
      <div class="two">
        <el-form-item label="When it is" for="rule-kind">
          <el-select id="rule-kind" v-model="form.kind" aria-label="When it is">
            <el-option value="in-zone" label="in a zone of its limits" :disabled="!choice?.limits" />
            <el-option value="above" label="above" />
            <el-option value="below" label="below" />
            <el-option value="outside" label="outside of a range" />
            <el-option value="silent" label="silent" />
            <el-option value="faulty" label="impossible: the sensor is at fault" />
            <el-option value="device-says" label="said by the device itself: not 0" />
          </el-select>
        </el-form-item>
        <el-form-item v-if="form.kind === 'in-zone'" label="that is at least" for="rule-zone">
          <el-select id="rule-zone" v-model="form.atLeast" aria-label="at least">
            <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
          </el-select>
        </el-form-item>
        <el-form-item
          v-else-if="form.kind === 'above' || form.kind === 'below'"
          :label="`Limit, ${choice?.unit ?? ''}`"
          for="rule-limit"
        >
          <el-input-number id="rule-limit" v-model="form.limit" :controls="false" aria-label="Limit" />
        </el-form-item>
        <el-form-item v-else-if="form.kind === 'outside'" :label="`Range, ${choice?.unit ?? ''}`">
          <div class="row">
            <el-input-number v-model="form.low" :controls="false" aria-label="from" /> to
            <el-input-number v-model="form.high" :controls="false" aria-label="to" />
          </div>
        </el-form-item>
        <el-form-item v-else-if="form.kind !== 'faulty'" label="for so many minutes" for="rule-silent">
          <el-input-number id="rule-silent" v-model="form.silentMinutes" :min="1" aria-label="minutes" />
        </el-form-item>
      </div>
      <div v-if="form.kind !== 'silent' && form.kind !== 'device-says'" class="two">
        <el-form-item label="Held, so that a spike wakes nobody" for="rule-hold">
          <el-select id="rule-hold" v-model="form.holdKind" aria-label="Held">
            <el-option value="time" label="for minutes" />
            <el-option value="reports" label="for reports in a row" />
          </el-select>
        </el-form-item>
        <el-form-item label="How long">
          <el-input-number v-if="form.holdKind === 'time'" v-model="form.holdMinutes" :min="0" aria-label="minutes" />
          <el-input-number v-else v-model="form.holdReports" :min="1" aria-label="reports" />
        </el-form-item>
        <el-form-item :label="`Dead band, ${choice?.unit ?? ''}: so far back before it is over`" for="rule-band">
          <el-input-number id="rule-band" v-model="form.deadBand" :min="0" :controls="false" aria-label="Dead band" />
        </el-form-item>
      </div>
      <div class="two">
        <el-form-item label="Name of the rule" for="rule-name"
          ><el-input id="rule-name" v-model="form.name"
        /></el-form-item>
        <el-form-item label="Severity" for="rule-severity">
          <el-select id="rule-severity" v-model="form.severity" aria-label="Severity">
            <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
          </el-select>
        </el-form-item>
      </div>
      <el-form-item label="Who is told: e-mail addresses" for="rule-told"
        ><el-input id="rule-told" v-model="form.recipients"
      /></el-form-item>
      <el-form-item label="What to do" for="rule-guidance"
        ><el-input id="rule-guidance" v-model="form.guidance" type="textarea" :rows="2"
      /></el-form-item>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button type="primary" :loading="busy" :disabled="!form.name || !choice" @click="save">Save</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 0 1rem;
}
</style>
