<script setup lang="ts">
import { api } from "@/api/http";
import type { LimitSet, LimitTrial } from "@/api/types";
import { useAction } from "@/look/act";
import FenceMark from "@/look/FenceMark.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { ref, watch } from "vue";
import { alerts, shares, times } from "./trial";

/** Tries a set on the last 30 days: at the points for which it holds, or at those of a place. */
const { set, somewhere = false } = defineProps<{
  /** A draft, or a set as it is. */
  set: LimitSet;
  /** Whether a place is chosen; else it is tried where it holds. */
  somewhere?: boolean;
}>();
const places = usePlaces();
const { busy, error, run } = useAction();
const found = ref<LimitTrial>();
const placeId = ref(places.editable.find((place) => place.kind === "site")?.id ?? places.editable[0]?.id ?? "");
const DAYS = 30;
const SHOWN = 30;

// What was found belongs to what was tried.
watch([() => JSON.stringify(set), placeId], () => (found.value = undefined));

async function tryOut() {
  await run(async () => {
    found.value = await api.post<LimitTrial>("limits/trial", {
      limitSet: set,
      placeId: somewhere ? placeId.value : null,
      days: DAYS,
    });
  });
}
</script>

<template>
  <section class="trial" aria-live="polite">
    <div class="ask">
      <el-select v-if="somewhere" v-model="placeId" filterable aria-label="Tried at the points of">
        <el-option v-for="place in places.editable" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
      <el-button :loading="busy" :disabled="somewhere && !placeId" @click="tryOut">Test on the last 30 days</el-button>
    </div>
    <ProblemNote :error="error" />
    <p v-if="found && !found.points.length" class="soft">
      {{ somewhere ? "No point of this quantity there." : "The set holds for no point yet." }}
    </p>
    <template v-else-if="found">
      <table class="rows cards">
        <thead>
          <tr>
            <th scope="col">Point</th>
            <th scope="col">Now</th>
            <th scope="col">With this set</th>
            <th scope="col">Time in zones</th>
            <th scope="col">Became abnormal</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="point in found.points.slice(0, SHOWN)" :key="point.pointId">
            <td>
              <RouterLink :to="'/points/' + point.number">{{ point.path.at(-1) }}, {{ point.name }}</RouterLink>
            </td>
            <td data-label="Now">{{ point.zoneNow ?? "no limits" }}</td>
            <td data-label="With this set">
              <span v-if="point.zoneThen" class="zone">
                {{ point.zoneThen }}
                <FenceMark v-if="point.severityThen" :severity="point.severityThen" />
              </span>
              <span v-else class="soft">no value</span>
            </td>
            <td data-label="Time in zones">{{ shares(point.secondsInZone) }}</td>
            <td data-label="Became abnormal">{{ point.crossings ? times(point.crossings) : "never" }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="found.points.length > SHOWN" class="soft small">
        The first {{ SHOWN }} of {{ found.points.length }} points, worst first.
      </p>
      <p v-for="rule in found.rules" :key="rule.ruleId" class="small">
        Rule {{ rule.name }}: {{ alerts(rule.times) }} with the limits as they are, {{ rule.timesThen }} with this set.
      </p>
    </template>
  </section>
</template>

<style scoped>
.trial {
  border-top: 1px solid var(--line);
  padding-top: 0.75rem;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
table {
  margin-top: 0.75rem;
}
.zone {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}
.ask .el-select {
  flex: 1 1 14rem;
}
</style>
