<script setup lang="ts">
import { said, t } from "@/language";
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
        label: t("All {quantityTitle} points (worst value)", { quantityTitle: said(first.quantityTitle) }),
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
      const title = said(some?.quantityTitle ?? quantity);
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
        choice(null, "point", t("Each {title} in {place}: one alert each", { title, place })),
        choice(null, "asset", t("Each thing in {place}, worst {title}", { place, title })),
        ...kinds
          .filter((kind) =>
            below.some((one) => one.quantity === quantity && places.byId.get(one.placeId)?.assetKind === kind),
          )
          .map((kind) => choice(kind, "asset", t("Each {kind} in {place}, worst {title}", { kind, place, title }))),
        ...[...tags].flatMap((tag) => [
          choice(
            null,
            "point",
            t("Each {title} tagged '{tag}' in {place}: one alert each", { title, tag, place }),
            tag,
          ),
          choice(null, "asset", t("Each thing in {place}, worst {title} tagged '{tag}'", { place, title, tag }), tag),
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
    label: t("{quantityTitle} of the same place", { quantityTitle: said(one.quantityTitle) }),
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
  return times === 0 ? t("No alert") : t("One alert | {n} alerts", { n: times });
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
      t("Rule saved."),
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
    name: form.name || t("This rule"),
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
    :title="rule ? t('Change {name}', { name: rule.name }) : t('Add a rule')"
    :save-label="t('Save')"
    :error="error"
    :busy="busy"
    :disabled="!form.name || !choice"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Points')" for="rule-target">
      <el-select id="rule-target" v-model="form.key" :aria-label="t('Points')">
        <el-option v-for="one in choices" :key="one.key" :value="one.key" :label="one.label" />
      </el-select>
    </el-form-item>
    <div v-if="isOfValue" class="two">
      <el-form-item :label="t('Measure')" for="rule-measure">
        <el-select id="rule-measure" v-model="form.measure" :aria-label="t('Measure')">
          <el-option value="last" :label="t('Latest value')" />
          <el-option value="mean" :label="t('Mean')" />
          <el-option value="maximum" :label="t('Maximum')" />
          <el-option value="minimum" :label="t('Minimum')" />
          <el-option value="range" :label="t('Range (maximum - minimum)')" :disabled="isOfChange" />
          <el-option value="rate" :label="t('Rate of change per hour')" :disabled="isOfChange" />
          <el-option value="deviation" :label="t('Deviation from mean')" :disabled="isOfChange" />
          <el-option value="difference" :label="t('Difference from another point')" :disabled="isOfChange" />
          <el-option value="forecast" :label="t('Forecast by its trend')" />
        </el-select>
      </el-form-item>
      <el-form-item v-if="form.measure === 'difference'" :label="t('Other point')" for="rule-other">
        <el-select id="rule-other" v-model="form.other" filterable :aria-label="t('Other point')">
          <el-option v-for="one in comparable" :key="one.id" :value="one.id" :label="one.label" />
        </el-select>
      </el-form-item>
      <el-form-item v-else-if="form.measure === 'forecast'" :label="t('Days ahead')" for="rule-ahead">
        <el-input-number id="rule-ahead" v-model="form.aheadDays" :min="1" :max="93" :aria-label="t('days ahead')" />
      </el-form-item>
      <el-form-item v-else-if="form.measure !== 'last'" :label="t('Window (minutes)')" for="rule-window">
        <el-input-number
          id="rule-window"
          v-model="form.windowMinutes"
          :min="1"
          :max="44640"
          :aria-label="t('minutes')"
        />
      </el-form-item>
    </div>
    <el-form-item v-if="isOfValue && form.measure === 'forecast'" :label="t('Trend of the last days')" for="rule-trend">
      <el-input-number
        id="rule-trend"
        v-model="form.trendDays"
        :min="2"
        :max="31"
        :aria-label="t('days of the trend')"
      />
    </el-form-item>
    <el-form-item
      v-if="isOfValue && form.measure === 'difference'"
      :label="t('Minutes apart at most')"
      for="rule-within"
    >
      <el-input-number
        id="rule-within"
        v-model="form.withinMinutes"
        :min="1"
        :max="44640"
        :aria-label="t('minutes apart')"
      />
    </el-form-item>
    <div class="two">
      <el-form-item :label="t('Condition')" for="rule-kind">
        <el-select id="rule-kind" v-model="form.kind" :aria-label="t('Condition')">
          <el-option value="in-zone" :label="t('in a zone of its limits')" :disabled="!choice?.limits" />
          <el-option value="above" :label="t('above')" />
          <el-option value="below" :label="t('below')" />
          <el-option value="outside" :label="t('outside of a range')" />
          <el-option value="off-baseline" :label="t('changed from the baseline')" />
          <el-option value="silent" :label="t('silent')" />
          <el-option value="faulty" :label="t('impossible: the sensor is at fault')" />
          <el-option value="device-says" :label="t('said by the device itself: not 0')" />
        </el-select>
      </el-form-item>
      <el-form-item v-if="form.kind === 'in-zone'" :label="t('that is at least')" for="rule-zone">
        <el-select id="rule-zone" v-model="form.atLeast" :aria-label="t('at least')">
          <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
        </el-select>
      </el-form-item>
      <el-form-item
        v-else-if="form.kind === 'above' || form.kind === 'below'"
        :label="t('Limit, {unit}', { unit })"
        for="rule-limit"
      >
        <el-input-number id="rule-limit" v-model="form.limit" :controls="false" :aria-label="t('Limit')" />
      </el-form-item>
      <el-form-item v-else-if="form.kind === 'outside'" :label="t('Range, {unit}', { unit })">
        <div class="row">
          <el-input-number v-model="form.low" :controls="false" :aria-label="t('from')" /> {{ t("to") }}
          <el-input-number v-model="form.high" :controls="false" :aria-label="t('to')" />
        </div>
      </el-form-item>
      <el-form-item v-else-if="form.kind === 'off-baseline'" :label="t('Change (up or down)')" for="rule-changed">
        <div class="row">
          <el-select id="rule-changed" v-model="form.changed" :aria-label="t('Change (up or down)')">
            <el-option value="percent" :label="t('% of the warning limit')" :disabled="!choice?.limits" />
            <el-option value="by" :label="t('an amount, {unit}', { unit })" />
            <el-option value="range" :label="t('outside the normal range')" />
          </el-select>
          <el-input-number
            v-if="form.changed === 'percent'"
            v-model="form.percent"
            :min="1"
            :max="1000"
            aria-label="%"
          />
          <el-input-number v-if="form.changed === 'by'" v-model="form.by" :controls="false" :aria-label="t('Amount')" />
        </div>
      </el-form-item>
      <el-form-item v-else-if="form.kind !== 'faulty'" :label="t('for so many minutes')" for="rule-silent">
        <el-input-number id="rule-silent" v-model="form.silentMinutes" :min="1" :aria-label="t('minutes')" />
      </el-form-item>
    </div>
    <template v-if="isOfValue">
      <div v-for="(row, i) in form.also" :key="i" class="term">
        <span>{{ form.join === "any" ? t("or") : t("while") }}</span>
        <template v-if="row.kept">{{ t("a condition that this form cannot edit") }}</template>
        <template v-else>
          <el-select v-model="row.key" :aria-label="t('Further value')">
            <el-option v-for="one in others" :key="one.key" :value="one.key" :label="one.label" />
          </el-select>
          <el-select v-model="row.kind" :aria-label="t('is')" class="short">
            <el-option value="above" :label="t('above')" />
            <el-option value="below" :label="t('below')" />
          </el-select>
          <el-input-number v-model="row.limit" :controls="false" :aria-label="t('Limit')" class="short" />
          <span class="soft">{{ others.find((one) => one.key === row.key)?.unit }}</span>
        </template>
        <el-button link @click="form.also.splice(i, 1)">{{ t("Remove") }}</el-button>
      </div>
      <div class="row joined">
        <el-button v-if="form.also.length < 8 && others.length" link type="primary" @click="addTerm">{{
          t("Add condition")
        }}</el-button>
        <template v-if="form.also.length">
          <el-radio-group v-model="form.join" :aria-label="t('How many hold')">
            <el-radio-button value="all">{{ t("all") }}</el-radio-button>
            <el-radio-button value="any">{{ t("any") }}</el-radio-button>
            <el-radio-button v-if="form.also.length > 1" value="some">{{ t("at least") }}</el-radio-button>
          </el-radio-group>
          <el-input-number
            v-if="form.join === 'some'"
            v-model="form.enough"
            :min="2"
            :max="form.also.length"
            :aria-label="t('at least so many')"
          />
        </template>
      </div>
    </template>
    <div v-if="form.kind !== 'silent' && form.kind !== 'device-says'" class="two">
      <el-form-item :label="t('Hold time (ignores spikes)')" for="rule-hold">
        <el-select id="rule-hold" v-model="form.holdKind" :aria-label="t('Held')">
          <el-option value="time" :label="t('for minutes')" />
          <el-option value="reports" :label="t('for reports in a row')" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('Duration')">
        <el-input-number
          v-if="form.holdKind === 'time'"
          v-model="form.holdMinutes"
          :min="0"
          :aria-label="t('minutes')"
        />
        <el-input-number v-else v-model="form.holdReports" :min="1" :aria-label="t('reports')" />
      </el-form-item>
      <el-form-item
        :label="t('Dead band, {unit} (must return this far before the alert clears)', { unit })"
        for="rule-band"
      >
        <el-input-number
          id="rule-band"
          v-model="form.deadBand"
          :min="0"
          :controls="false"
          :aria-label="t('Dead band')"
        />
      </el-form-item>
    </div>
    <el-form-item :label="t('Active')" for="rule-active">
      <HoursFields id="rule-active" v-model="form.active" :label="t('Active')" />
    </el-form-item>
    <div class="two">
      <el-form-item :label="t('Name of the rule')" for="rule-name"
        ><el-input id="rule-name" v-model="form.name"
      /></el-form-item>
      <el-form-item :label="t('Severity')" for="rule-severity">
        <el-select
          id="rule-severity"
          v-model="form.severity"
          :disabled="form.kind === 'in-zone' && form.ofZone"
          :aria-label="t('Severity')"
        >
          <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
        </el-select>
        <el-checkbox v-if="form.kind === 'in-zone'" v-model="form.ofZone">{{
          t("Severity of the zone: one alert that becomes worse")
        }}</el-checkbox>
      </el-form-item>
    </div>
    <el-form-item :label="t('Recipients')" for="rule-told">
      <RecipientsField id="rule-told" v-model="form.recipients" :label="t('Recipients')" :people="people" />
    </el-form-item>
    <RoundFields v-model="form.rounds" :people="people" />
    <el-form-item :label="t('When the alert is over')">
      <el-checkbox v-model="form.latching">{{
        t("Keep it listed until somebody has acknowledged that it is over")
      }}</el-checkbox>
      <el-checkbox v-model="form.tellWhenOver">{{ t("Notify everybody who was notified") }}</el-checkbox>
    </el-form-item>
    <el-form-item :label="t('Instructions')" for="rule-guidance"
      ><el-input
        id="rule-guidance"
        v-model="form.guidance"
        type="textarea"
        :rows="3"
        :placeholder="t('1. Listen at the coupling 2. Check the alignment')"
      />
      <p class="soft small">
        {{ t("Lines that begin with a number or a dash become steps to tick off in the alert.") }}
      </p></el-form-item
    >
    <section class="trial" aria-live="polite">
      <el-button :loading="trial.busy.value" :disabled="!choice" @click="rehearse">{{
        t("Test on the last 30 days")
      }}</el-button>
      <ProblemNote :error="trial.error.value" />
      <template v-if="tried">
        <p>
          <strong>{{ timesWords(tried.times) }}</strong><template v-if="tried.times">{{
            t(", {span} altogether", { span: span(tried.seconds) })
          }}</template
          >{{ t(", in {readings} readings.", { readings: tried.readings }) }}
        </p>
        <p v-if="tried.holds.length" class="soft small">
          {{ t("Alerts with other hold times:") }}
          <span v-for="(one, i) in tried.holds" :key="one.seconds"
            >{{ i ? ", " : "" }}{{ one.seconds ? span(one.seconds) : t("none") }} {{ one.times }}</span
          >.
        </p>
        <ul v-if="tried.alerts.length" class="small">
          <li v-for="(one, i) in tried.alerts.slice(0, 8)" :key="i">
            {{
              t("{from} to {until}: {summary}", {
                from: moment(one.raisedAt),
                until: one.overAt ? moment(one.overAt) : t("now"),
                summary: one.summary,
              })
            }}
          </li>
          <li v-if="tried.times > 8" class="soft">{{ t("and {count} more", { count: tried.times - 8 }) }}</li>
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
