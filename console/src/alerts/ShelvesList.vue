<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { RuleShelf } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import AlertCards from "./AlertCards.vue";
import { useAlerts } from "./alerts";

/** Everything that is set aside, with who did it, why, and how to end it. */
const alerts = useAlerts();
const places = usePlaces();
const points = usePoints();
const shelves = useLoad(() => api.get<RuleShelf[]>("rules/shelves"));
onChanged(["rules", "registry"], shelves.load);
onLive("resync", shelves.load);
const { error, run } = useAction();

function member(shelf: RuleShelf): string {
  const point = points.byId.get(shelf.memberId);
  return point ? `${point.name} (${point.path.at(-1) ?? ""})` : (places.byId.get(shelf.memberId)?.name ?? "");
}

async function end(shelf: RuleShelf) {
  const of = shelf.memberId ? `?member=${encodeURIComponent(shelf.memberId)}` : "";
  await run(
    () => api.remove(`rules/${shelf.ruleId}/shelving${of}`),
    t("“{ruleName}” notifies again.", { ruleName: shelf.ruleName }),
  );
  await shelves.load();
}
</script>

<template>
  <div class="stack">
    <section class="sheet">
      <ProblemNote :error="error ?? shelves.error.value" />
      <table v-if="shelves.data.value?.length" class="rows cards">
        <thead>
          <tr>
            <th>{{ t("Rule") }}</th>
            <th>{{ t("Until") }}</th>
            <th>{{ t("Reason") }}</th>
            <th>{{ t("By") }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="shelf in shelves.data.value" :key="shelf.ruleId + shelf.memberId">
            <td class="wide">
              <strong>{{ shelf.ruleName }}</strong>
              <div v-if="shelf.memberId" class="soft small">{{ member(shelf) }}</div>
            </td>
            <td>{{ shelf.shelf.until ? moment(shelf.shelf.until) : t("out of service") }}</td>
            <td>{{ shelf.shelf.reason }}</td>
            <td>{{ shelf.shelf.person }}</td>
            <td>
              <el-button @click="end(shelf)">{{ t("End shelving") }}</el-button>
            </td>
          </tr>
        </tbody>
      </table>
      <EmptyState v-else-if="!shelves.loading.value && !shelves.error.value" :title="t('Nothing is shelved')">
        {{ t("Shelve an alert on its page, for example while a machine is being repaired.") }}
      </EmptyState>
    </section>
    <AlertCards :alerts="alerts.shelved" />
  </div>
</template>
