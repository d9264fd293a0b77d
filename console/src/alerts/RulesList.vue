<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Rule, RuleShelf, RuleStanding, Term } from "@/api/types";
import { useAction } from "@/look/act";
import EmptyState from "@/look/EmptyState.vue";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import { length } from "@/health/findings";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { ref } from "vue";
import RuleFileForm from "./RuleFileForm.vue";
import RuleForm from "./RuleForm.vue";
import { moment, now } from "@/look/clock";
import { recipientWords } from "./recipients";
import { ruleWords, STATES } from "./states";

const places = usePlaces();
const points = usePoints();
const rules = useLoad(() => api.get<Rule[]>("rules"));
const standing = useLoad(async () => {
  // Of a rule over many, one that has an alert says more than one that waits.
  const all = await api.get<RuleStanding[]>("rules/standing");
  return new Map(
    [...all].sort((a, b) => Number(a.alertId !== null) - Number(b.alertId !== null)).map((one) => [one.ruleId, one]),
  );
});
const shelves = useLoad(async () => {
  const all = await api.get<RuleShelf[]>("rules/shelves");
  return new Map(
    all.map(({ ruleId, memberId, shelf }) => [
      ruleId,
      t("{part}{until} by {person}: {reason}", {
        part: memberId ? `${t("In part")} ` : "",
        until: shelf.until ? t("shelved until {moment}", { moment: moment(shelf.until) }) : t("out of service"),
        person: shelf.person,
        reason: shelf.reason,
      }),
    ]),
  );
});
onChanged(["rules"], standing.load);
onChanged(["rules"], shelves.load);
onChanged(["registry"], rules.load);
onLive("resync", standing.load);
const editing = ref<Rule>();
const removed = ref<Rule>();
const asText = ref(false);
const { error, run } = useAction();

function placeOf(rule: Rule): string | null {
  switch (rule.target.kind) {
    case "asset":
      return rule.target.assetId;
    case "selection":
      return rule.target.placeId;
    case "point":
      return points.byId.get(rule.target.pointId)?.placeId ?? null;
  }
}

function where(rule: Rule): string {
  const place = places.byId.get(placeOf(rule) ?? "")?.name ?? "";
  switch (rule.target.kind) {
    case "asset":
      return place;
    case "selection": {
      const what = rule.target.assetKind
        ? t("each {assetKind}", { assetKind: rule.target.assetKind })
        : t("each {each}", { each: rule.target.each });
      const tagged = rule.target.tag ? ` ${t("tagged '{tag}'", { tag: rule.target.tag })}` : "";
      return t("{place}, {what} with {quantity}{tagged}", {
        place: place,
        what: what,
        quantity: rule.target.quantity.replace(/-/g, " "),
        tagged: tagged,
      });
    }
    case "point":
      return `${place}, ${points.byId.get(rule.target.pointId)?.name ?? ""}`;
  }
}

function unit(rule: Rule): string {
  switch (rule.target.kind) {
    case "point":
      return points.byId.get(rule.target.pointId)?.unit ?? "";
    case "asset":
      return points.ofPlace(rule.target.assetId)[0]?.unit ?? "";
    case "selection": {
      const quantity = rule.target.quantity;
      return points.all.find((point) => point.quantity === quantity)?.usualUnit ?? "";
    }
  }
}

function pointName(id: string): string {
  const point = points.byId.get(id);
  return point ? `${places.byId.get(point.placeId)?.name ?? ""}: ${point.name}` : t("a point that is gone");
}

function termName(term: Term): string {
  return term.target.kind === "point"
    ? (points.byId.get(term.target.pointId)?.name ?? t("a point that is gone"))
    : term.target.quantity.replace(/-/g, " ");
}

async function toggle(rule: Rule) {
  // By what is registered now, not by what this page loaded: somebody may have changed it in between.
  await run(async () => {
    const { thing, tag } = await api.tagged<Rule>("rules/" + rule.id);
    await api.put("rules/" + rule.id, { ...thing, enabled: !rule.enabled }, tag);
  });
  await rules.load();
}

async function remove(rule: Rule) {
  if (await run(() => api.remove("rules/" + rule.id))) {
    removed.value = rule;
    await rules.load();
  }
}

async function bringBack() {
  await run(() => api.post("rules", removed.value), t("The rule is back."));
  removed.value = undefined;
  await rules.load();
}
</script>

<template>
  <section class="sheet stack">
    <ProblemNote :error="error ?? rules.error.value" />
    <p class="row small">
      <RouterLink to="/packs">{{ t("Packs") }}</RouterLink>
      <span class="soft">{{ t("share rules as a file, or import a set of them") }}</span>
      <el-button v-if="places.editable.length" class="yaml" @click="asText = true">{{ t("Edit as YAML") }}</el-button>
    </p>
    <p v-if="removed" class="row" role="status">
      {{ t("“{name}” is removed.", { name: removed.name }) }}
      <el-button link type="primary" @click="bringBack">{{ t("Bring it back") }}</el-button>
    </p>
    <table v-if="rules.data.value?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Severity") }}</th>
          <th>{{ t("Rule") }}</th>
          <th>{{ t("Recipients") }}</th>
          <th>{{ t("On") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="rule in rules.data.value" :key="rule.id">
          <td><FenceMark :severity="rule.severity" :quiet="!standing.data.value?.has(rule.id)" /></td>
          <td class="wide">
            <strong>{{ rule.name }}</strong>
            <div v-if="shelves.data.value?.has(rule.id)" class="small">{{ shelves.data.value.get(rule.id) }}</div>
            <div class="soft small">{{ where(rule) }}: {{ ruleWords(rule, unit(rule), termName, pointName) }}</div>
            <div v-if="standing.data.value?.get(rule.id)" class="small">
              <RouterLink
                v-if="standing.data.value.get(rule.id)?.alertId"
                :to="`/alerts/${standing.data.value.get(rule.id)?.alertId}`"
              >
                {{ STATES[standing.data.value.get(rule.id)?.state ?? "normal"] }}
              </RouterLink>
              <template v-else>
                {{
                  t("holds for {span}, not long enough for an alert yet", {
                    span: length(Math.floor((now - Date.parse(standing.data.value.get(rule.id)?.since ?? "")) / 1000)),
                  })
                }}
              </template>
            </div>
          </td>
          <td class="small">{{ rule.recipients.map(recipientWords).join(", ") || t("nobody") }}</td>
          <td>
            <el-switch
              :model-value="rule.enabled"
              :disabled="!places.may('edit', placeOf(rule))"
              :aria-label="t('{name} is watched', { name: rule.name })"
              @change="toggle(rule)"
            />
          </td>
          <td>
            <template v-if="places.may('edit', placeOf(rule))">
              <el-button link type="primary" @click="editing = rule">{{ t("Change") }}</el-button>
              <el-button link @click="remove(rule)">{{ t("Remove") }}</el-button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="!rules.loading.value" :title="t('No rules yet')"
      >{{ t("Add one on the page of a point or an asset, or import a") }}
      <RouterLink to="/packs">{{ t("pack") }}</RouterLink>.</EmptyState
    >
    <RuleFileForm v-if="asText" @applied="rules.load" @close="asText = false" />
    <RuleForm
      v-if="editing"
      :rule="editing"
      :place-id="placeOf(editing) ?? ''"
      @close="((editing = undefined), rules.load())"
    />
  </section>
</template>

<style scoped>
.yaml {
  margin-left: auto;
}
</style>
