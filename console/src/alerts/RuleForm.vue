<script setup lang="ts">
import { api } from "@/api/http";
import type {
  Condition,
  Hold,
  Measure,
  Point,
  PossibleRecipient,
  Quantity,
  Rehearsal,
  Rule,
  Severity,
  Target,
  Term,
} from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import FormDialog from "@/look/FormDialog.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive, ref } from "vue";
import { moment } from "@/look/clock";
import RecipientsField from "./RecipientsField.vue";
import HoursFields from "./HoursFields.vue";
import RoundFields from "./RoundFields.vue";
import { measureUnit, span } from "./states";

/** Makes a rule for a point or an asset, or changes one. */
const { rule, point, placeId, silence } = defineProps<{
  rule?: Rule;
  point?: Point;
  placeId: string;
  /** Begins as a rule for silence. */
  silence?: boolean;
}>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();
const possible = useLoad(() => api.get<PossibleRecipient[]>(`places/${placeId}/recipients`));
const people = computed(() => possible.data.value ?? []);
const version = useVersion(rule && "rules/" + rule.id);

interface Choice {
  key: string;
  label: string;
  target: Target;
  unit: string;
  limits: boolean;
}

/** What can be watched here: all directions of the asset together, a point, or each one in all that lies below. */
const choices = computed<Choice[]>(() => {
  const here = points.ofPlace(placeId);
  const together = [...new Set(here.map((one) => one.quantity))]
    .filter(() => places.byId.get(placeId)?.kind === "asset")
    .map((quantity) => {
      const first = here.find((one) => one.quantity === quantity) as Point;
      return {
        key: quantity,
        label: `All ${first.quantityTitle} points (worst value)`,
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
  return [...together, ...single, ...selections.value];
});

/** One rule for all cellars: each has an alert of its own, and one that comes later joins by itself. */
const selections = computed<Choice[]>(() => {
  const below = points.below(placeId);
  const place = places.byId.get(placeId)?.name ?? "";
  const kinds = [
    ...new Set(
      below.map((one) => places.byId.get(one.placeId)?.assetKind ?? "").filter((kind) => kind && below.length > 1),
    ),
  ];
  return [...new Set(below.map((one) => one.quantity))]
    .filter((quantity) => below.filter((one) => one.quantity === quantity).length > 1 || isOf(quantity))
    .flatMap((quantity) => {
      const some = below.find((one) => one.quantity === quantity);
      const title = some?.quantityTitle ?? quantity;
      const tags = new Set([
        ...below.filter((one) => one.quantity === quantity).flatMap((one) => one.tags),
        ...(isOf(quantity) && rule?.target.kind === "selection" && rule.target.tag ? [rule.target.tag] : []),
      ]);
      const choice = (
        assetKind: string | null,
        each: "point" | "asset",
        label: string,
        tag: string | null = null,
      ): Choice => ({
        key: keyOf({ quantity, assetKind, tag, each }),
        label,
        target: { kind: "selection", placeId, quantity, assetKind, tag, each },
        unit: some?.usualUnit ?? "",
        limits: below.some((one) => one.quantity === quantity && one.limitSet !== null),
      });
      return [
        choice(null, "point", `Each ${title} in ${place}: one alert each`),
        choice(null, "asset", `Each thing in ${place}, worst ${title}`),
        ...kinds
          .filter((kind) =>
            below.some((one) => one.quantity === quantity && places.byId.get(one.placeId)?.assetKind === kind),
          )
          .map((kind) => choice(kind, "asset", `Each ${kind} in ${place}, worst ${title}`)),
        ...[...tags].flatMap((tag) => [
          choice(null, "point", `Each ${title} tagged '${tag}' in ${place}: one alert each`, tag),
          choice(null, "asset", `Each thing in ${place}, worst ${title} tagged '${tag}'`, tag),
        ]),
      ];
    });
});
function keyOf(of: { quantity: string; assetKind?: string | null; tag?: string | null; each?: string | null }): string {
  return ["each", of.quantity, of.assetKind ?? "", of.tag?.toLowerCase() ?? "", of.each ?? "point"].join("|");
}
function isOf(quantity: string): boolean {
  return rule?.target.kind === "selection" && rule.target.quantity === quantity;
}

const start =
  rule?.target.kind === "point"
    ? rule.target.pointId
    : rule?.target.kind === "asset"
      ? rule.target.quantity
      : rule?.target.kind === "selection"
        ? keyOf(rule.target)
        : (point?.id ?? choices.value[0]?.key ?? "");
const condition = rule?.condition;
const DAY = 86_400;
const form = reactive({
  key: start,
  measure: rule?.measure?.kind ?? ("last" as Measure["kind"]),
  windowMinutes: rule?.measure && "seconds" in rule.measure ? rule.measure.seconds / 60 : 60,
  trendDays: rule?.measure?.kind === "forecast" ? rule.measure.seconds / DAY : 30,
  aheadDays: rule?.measure?.kind === "forecast" ? rule.measure.aheadSeconds / DAY : 14,
  other: rule?.measure?.kind === "difference" ? rule.measure.pointId : "",
  withinMinutes: rule?.measure?.kind === "difference" ? rule.measure.withinSeconds / 60 : 60,
  also: (rule?.also ?? []).map(rowOf),
  join: rule?.atLeast === 1 ? "any" : ("all" as "all" | "any" | "some"),
  enough: rule?.atLeast ?? 2,
  name: rule?.name ?? "",
  kind: condition?.kind ?? ((silence ? "silent" : "in-zone") as Condition["kind"]),
  limit: condition && "limit" in condition ? condition.limit : (0 as number | undefined),
  low: condition?.kind === "outside" ? condition.low : 0,
  high: condition?.kind === "outside" ? condition.high : 0,
  atLeast: condition?.kind === "in-zone" ? condition.atLeast : ("warning" as Severity),
  changed:
    condition?.kind === "off-baseline" && condition.by != null
      ? "by"
      : condition?.kind === "off-baseline" && condition.percentOfLimit == null
        ? "range"
        : ("percent" as "percent" | "by" | "range"),
  percent: (condition?.kind === "off-baseline" && condition.percentOfLimit) || 25,
  by: (condition?.kind === "off-baseline" && condition.by) || 1,
  silentMinutes:
    condition?.kind === "silent"
      ? condition.seconds / 60
      : condition?.kind === "device-says"
        ? condition.silentSeconds / 60
        : silence
          ? 10
          : 60,
  holdKind: rule?.hold.kind ?? ("time" as Hold["kind"]),
  holdMinutes: rule?.hold.kind === "time" ? rule.hold.seconds / 60 : 10,
  holdReports: rule?.hold.kind === "reports" ? rule.hold.count : 3,
  deadBand: rule?.deadBand ?? 0,
  active: rule?.active ? { ...rule.active } : null,
  severity: rule?.severity ?? ("warning" as Severity),
  latching: rule?.latching === true,
  tellWhenOver: rule?.tellWhenOver === true,
  rounds: (rule?.rounds ?? []).map((one) => ({
    afterMinutes: one.afterMinutes,
    recipients: [...one.recipients],
    hours: one.hours ?? null,
  })),
  ofZone: rule ? rule.severityOfZone === true : true,
  recipients: [...(rule?.recipients ?? [])],
  guidance: rule?.guidance ?? "",
});
const choice = computed(() => choices.value.find((one) => one.key === form.key));

if (rule?.atLeast && rule.atLeast > 1 && rule.atLeast <= rule.also.length) {
  form.join = "some";
}
const isOfValue = computed(() => ["above", "below", "outside", "in-zone", "off-baseline"].includes(form.kind));
const isOfChange = computed(() => ["in-zone", "off-baseline"].includes(form.kind));
const unit = computed(() => measureUnit(form.measure, choice.value?.unit ?? ""));

/** A further condition as it stands in the form; one that the form has no fields for is kept as it is. */
interface Row {
  key: string;
  kind: "above" | "below";
  limit: number | undefined;
  kept: Term | null;
}
function rowOf(term: Term): Row {
  const simple =
    (term.condition.kind === "above" || term.condition.kind === "below") &&
    term.measure.kind === "last" &&
    term.deadBand === 0 &&
    (term.target.kind === "point" || term.target.kind === "here");
  return {
    key: term.target.kind === "point" ? term.target.pointId : term.target.kind === "here" ? term.target.quantity : "",
    kind: term.condition.kind === "below" ? "below" : "above",
    limit: "limit" in term.condition ? term.condition.limit : 0,
    kept: simple ? null : term,
  };
}
/** What a further condition can look at: the same quantity at each member's place, or one point. */
const others = computed(() => {
  const below = points.below(placeId);
  const here = [...new Map(below.map((one) => [one.quantity, one])).values()].map((one) => ({
    key: one.quantity,
    label: `${one.quantityTitle} of the same place`,
    unit: one.usualUnit,
  }));
  const single = points.ofPlace(placeId).map((one) => ({ key: one.id, label: one.name, unit: one.unit }));
  return [...single, ...here];
});
/** What the value can be compared with: points of the same quantity that one may see. */
const comparable = computed(() => {
  const target = choice.value?.target;
  const quantity =
    target?.kind === "point"
      ? points.byId.get(target.pointId)?.quantity
      : target && "quantity" in target
        ? target.quantity
        : "";
  return points.all
    .filter((one) => one.quantity === quantity && !(target?.kind === "point" && target.pointId === one.id))
    .map((one) => ({ id: one.id, label: `${places.byId.get(one.placeId)?.name ?? ""}: ${one.name}` }));
});
function termOf(row: Row): Term {
  return (
    row.kept ?? {
      target: points.byId.has(row.key)
        ? { kind: "point", pointId: row.key }
        : { kind: "here", quantity: row.key as Quantity },
      measure: { kind: "last" },
      condition: { kind: row.kind, limit: row.limit ?? 0 },
      deadBand: 0,
    }
  );
}
function addTerm() {
  form.also.push({ key: others.value[0]?.key ?? "", kind: "above", limit: 0, kept: null });
}
function measureOf(): Measure {
  if (!isOfValue.value) {
    return { kind: "last" };
  }
  switch (form.measure) {
    case "last":
      return { kind: "last" };
    case "forecast":
      return {
        kind: "forecast",
        seconds: Math.round(form.trendDays * DAY),
        aheadSeconds: Math.round(form.aheadDays * DAY),
      };
    case "difference":
      return { kind: "difference", pointId: form.other, withinSeconds: Math.round(form.withinMinutes * 60) };
    default:
      return { kind: form.measure, seconds: Math.round(form.windowMinutes * 60) };
  }
}

function timesWords(times: number): string {
  return times === 0 ? "No alert" : times === 1 ? "One alert" : `${times} alerts`;
}

function conditionOf(): Condition {
  switch (form.kind) {
    case "above":
    case "below":
      return { kind: form.kind, limit: form.limit ?? 0 };
    case "outside":
      return { kind: "outside", low: form.low, high: form.high };
    case "in-zone":
      return { kind: "in-zone", atLeast: form.atLeast };
    case "off-baseline":
      return {
        kind: "off-baseline",
        percentOfLimit: form.changed === "percent" ? form.percent : null,
        by: form.changed === "by" ? form.by : null,
      };
    case "silent":
      return { kind: "silent", seconds: Math.round(form.silentMinutes * 60) };
    case "faulty":
      return { kind: "faulty" };
    case "device-says":
      return { kind: "device-says", silentSeconds: Math.round(form.silentMinutes * 60) };
  }
}

const tried = ref<Rehearsal>();
const trial = useAction();
async function rehearse() {
  tried.value = undefined;
  await trial.run(async () => {
    tried.value = await api.post<Rehearsal>("rules/rehearsal", { rule: body() });
  });
}

async function save() {
  if (
    await run(
      async () => (rule ? api.put("rules/" + rule.id, body(), await version()) : api.post("rules", body())),
      "Rule saved.",
    )
  ) {
    emit("close");
  }
}

function body() {
  const hold: Hold =
    form.holdKind === "reports"
      ? { kind: "reports", count: form.holdReports }
      : { kind: "time", seconds: Math.round(form.holdMinutes * 60) };
  return {
    name: form.name || "This rule",
    target: choice.value?.target,
    measure: measureOf(),
    also: isOfValue.value ? form.also.map(termOf) : [],
    atLeast:
      !isOfValue.value || !form.also.length || form.join === "all" ? null : form.join === "any" ? 1 : form.enough,
    condition: conditionOf(),
    hold: form.kind === "silent" || form.kind === "device-says" ? { kind: "time", seconds: 0 } : hold,
    active: form.active,
    deadBand: form.deadBand,
    severity: form.severity,
    latching: form.latching,
    tellWhenOver: form.tellWhenOver,
    rounds: form.rounds.filter((one) => one.recipients.length),
    severityOfZone: form.kind === "in-zone" && form.ofZone,
    enabled: rule?.enabled ?? true,
    recipients: form.recipients,
    guidance: form.guidance,
  };
}
</script>

<template>
  <FormDialog
    :title="rule ? 'Change ' + rule.name : 'Add a rule'"
    save-label="Save"
    :error="error"
    :busy="busy"
    :disabled="!form.name || !choice"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item label="Points" for="rule-target">
      <el-select id="rule-target" v-model="form.key" aria-label="Points">
        <el-option v-for="one in choices" :key="one.key" :value="one.key" :label="one.label" />
      </el-select>
    </el-form-item>
    <div v-if="isOfValue" class="two">
      <el-form-item label="Measure" for="rule-measure">
        <el-select id="rule-measure" v-model="form.measure" aria-label="Measure">
          <el-option value="last" label="Latest value" />
          <el-option value="mean" label="Mean" />
          <el-option value="maximum" label="Maximum" />
          <el-option value="minimum" label="Minimum" />
          <el-option value="range" label="Range (maximum - minimum)" :disabled="isOfChange" />
          <el-option value="rate" label="Rate of change per hour" :disabled="isOfChange" />
          <el-option value="deviation" label="Deviation from mean" :disabled="isOfChange" />
          <el-option value="difference" label="Difference from another point" :disabled="isOfChange" />
          <el-option value="forecast" label="Forecast by its trend" />
        </el-select>
      </el-form-item>
      <el-form-item v-if="form.measure === 'difference'" label="Other point" for="rule-other">
        <el-select id="rule-other" v-model="form.other" filterable aria-label="Other point">
          <el-option v-for="one in comparable" :key="one.id" :value="one.id" :label="one.label" />
        </el-select>
      </el-form-item>
      <el-form-item v-else-if="form.measure === 'forecast'" label="Days ahead" for="rule-ahead">
        <el-input-number id="rule-ahead" v-model="form.aheadDays" :min="1" :max="93" aria-label="days ahead" />
      </el-form-item>
      <el-form-item v-else-if="form.measure !== 'last'" label="Window (minutes)" for="rule-window">
        <el-input-number id="rule-window" v-model="form.windowMinutes" :min="1" :max="44640" aria-label="minutes" />
      </el-form-item>
    </div>
    <el-form-item v-if="isOfValue && form.measure === 'forecast'" label="Trend of the last days" for="rule-trend">
      <el-input-number id="rule-trend" v-model="form.trendDays" :min="2" :max="31" aria-label="days of the trend" />
    </el-form-item>
    <el-form-item v-if="isOfValue && form.measure === 'difference'" label="Minutes apart at most" for="rule-within">
      <el-input-number id="rule-within" v-model="form.withinMinutes" :min="1" :max="44640" aria-label="minutes apart" />
    </el-form-item>
    <div class="two">
      <el-form-item label="Condition" for="rule-kind">
        <el-select id="rule-kind" v-model="form.kind" aria-label="Condition">
          <el-option value="in-zone" label="in a zone of its limits" :disabled="!choice?.limits" />
          <el-option value="above" label="above" />
          <el-option value="below" label="below" />
          <el-option value="outside" label="outside of a range" />
          <el-option value="off-baseline" label="changed from the baseline" />
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
        :label="`Limit, ${unit}`"
        for="rule-limit"
      >
        <el-input-number id="rule-limit" v-model="form.limit" :controls="false" aria-label="Limit" />
      </el-form-item>
      <el-form-item v-else-if="form.kind === 'outside'" :label="`Range, ${unit}`">
        <div class="row">
          <el-input-number v-model="form.low" :controls="false" aria-label="from" /> to
          <el-input-number v-model="form.high" :controls="false" aria-label="to" />
        </div>
      </el-form-item>
      <el-form-item v-else-if="form.kind === 'off-baseline'" label="Change (up or down)" for="rule-changed">
        <div class="row">
          <el-select id="rule-changed" v-model="form.changed" aria-label="Change">
            <el-option value="percent" label="% of the warning limit" :disabled="!choice?.limits" />
            <el-option value="by" :label="`an amount, ${unit}`" />
            <el-option value="range" label="outside the normal range" />
          </el-select>
          <el-input-number
            v-if="form.changed === 'percent'"
            v-model="form.percent"
            :min="1"
            :max="1000"
            aria-label="%"
          />
          <el-input-number v-if="form.changed === 'by'" v-model="form.by" :controls="false" aria-label="Amount" />
        </div>
      </el-form-item>
      <el-form-item v-else-if="form.kind !== 'faulty'" label="for so many minutes" for="rule-silent">
        <el-input-number id="rule-silent" v-model="form.silentMinutes" :min="1" aria-label="minutes" />
      </el-form-item>
    </div>
    <template v-if="isOfValue">
      <div v-for="(row, i) in form.also" :key="i" class="term">
        <span>{{ form.join === "any" ? "or" : "while" }}</span>
        <template v-if="row.kept">a condition that this form cannot edit</template>
        <template v-else>
          <el-select v-model="row.key" aria-label="Further value">
            <el-option v-for="one in others" :key="one.key" :value="one.key" :label="one.label" />
          </el-select>
          <el-select v-model="row.kind" aria-label="is" class="short">
            <el-option value="above" label="above" />
            <el-option value="below" label="below" />
          </el-select>
          <el-input-number v-model="row.limit" :controls="false" aria-label="Limit" class="short" />
          <span class="soft">{{ others.find((one) => one.key === row.key)?.unit }}</span>
        </template>
        <el-button link @click="form.also.splice(i, 1)">Remove</el-button>
      </div>
      <div class="row joined">
        <el-button v-if="form.also.length < 8 && others.length" link type="primary" @click="addTerm"
          >Add condition</el-button
        >
        <template v-if="form.also.length">
          <el-radio-group v-model="form.join" aria-label="How many hold">
            <el-radio-button value="all">all</el-radio-button>
            <el-radio-button value="any">any</el-radio-button>
            <el-radio-button v-if="form.also.length > 1" value="some">at least</el-radio-button>
          </el-radio-group>
          <el-input-number
            v-if="form.join === 'some'"
            v-model="form.enough"
            :min="2"
            :max="form.also.length"
            aria-label="at least so many"
          />
        </template>
      </div>
    </template>
    <div v-if="form.kind !== 'silent' && form.kind !== 'device-says'" class="two">
      <el-form-item label="Hold time (ignores spikes)" for="rule-hold">
        <el-select id="rule-hold" v-model="form.holdKind" aria-label="Held">
          <el-option value="time" label="for minutes" />
          <el-option value="reports" label="for reports in a row" />
        </el-select>
      </el-form-item>
      <el-form-item label="Duration">
        <el-input-number v-if="form.holdKind === 'time'" v-model="form.holdMinutes" :min="0" aria-label="minutes" />
        <el-input-number v-else v-model="form.holdReports" :min="1" aria-label="reports" />
      </el-form-item>
      <el-form-item :label="`Dead band, ${unit} (must return this far before the alert clears)`" for="rule-band">
        <el-input-number id="rule-band" v-model="form.deadBand" :min="0" :controls="false" aria-label="Dead band" />
      </el-form-item>
    </div>
    <el-form-item label="Active" for="rule-active">
      <HoursFields id="rule-active" v-model="form.active" label="Active" />
    </el-form-item>
    <div class="two">
      <el-form-item label="Name of the rule" for="rule-name"
        ><el-input id="rule-name" v-model="form.name"
      /></el-form-item>
      <el-form-item label="Severity" for="rule-severity">
        <el-select
          id="rule-severity"
          v-model="form.severity"
          :disabled="form.kind === 'in-zone' && form.ofZone"
          aria-label="Severity"
        >
          <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
        </el-select>
        <el-checkbox v-if="form.kind === 'in-zone'" v-model="form.ofZone"
          >Severity of the zone: one alert that becomes worse</el-checkbox
        >
      </el-form-item>
    </div>
    <el-form-item label="Recipients" for="rule-told">
      <RecipientsField id="rule-told" v-model="form.recipients" label="Recipients" :people="people" />
    </el-form-item>
    <RoundFields v-model="form.rounds" :people="people" />
    <el-form-item label="When the alert is over">
      <el-checkbox v-model="form.latching">Keep it listed until somebody has acknowledged that it is over</el-checkbox>
      <el-checkbox v-model="form.tellWhenOver">Notify everybody who was notified</el-checkbox>
    </el-form-item>
    <el-form-item label="Instructions" for="rule-guidance"
      ><el-input
        id="rule-guidance"
        v-model="form.guidance"
        type="textarea"
        :rows="3"
        placeholder="1. Listen at the coupling&#10;2. Check the alignment"
      />
      <p class="soft small">
        Lines that begin with a number or a dash become steps to tick off in the alert.
      </p></el-form-item
    >
    <section class="trial" aria-live="polite">
      <el-button :loading="trial.busy.value" :disabled="!choice" @click="rehearse">Test on the last 30 days</el-button>
      <ProblemNote :error="trial.error.value" />
      <template v-if="tried">
        <p>
          <strong>{{ timesWords(tried.times) }}</strong><template v-if="tried.times"
            >, {{ span(tried.seconds) }} altogether</template
          >, in {{ tried.readings }}
          readings.
        </p>
        <p v-if="tried.holds.length" class="soft small">
          Alerts with other hold times:
          <span v-for="(one, i) in tried.holds" :key="one.seconds"
            >{{ i ? ", " : "" }}{{ one.seconds ? span(one.seconds) : "none" }} {{ one.times }}</span
          >.
        </p>
        <ul v-if="tried.alerts.length" class="small">
          <li v-for="(one, i) in tried.alerts.slice(0, 8)" :key="i">
            {{ moment(one.raisedAt) }} to {{ one.overAt ? moment(one.overAt) : "now" }}: {{ one.summary }}
          </li>
          <li v-if="tried.times > 8" class="soft">and {{ tried.times - 8 }} more</li>
        </ul>
      </template>
    </section>
  </FormDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 0 1rem;
}
.term {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.5rem;
}
.term > .el-select {
  flex: 1 1 11rem;
}
.term > .short {
  flex: 0 0 6.5rem;
  width: 6.5rem;
}
.trial {
  border-top: 1px solid var(--line);
  padding-top: 0.75rem;
}
.trial ul {
  margin: 0.25rem 0 0.5rem;
  padding-left: 1.25rem;
}
.joined {
  margin-bottom: 1rem;
  min-height: 2.25rem;
}
</style>
