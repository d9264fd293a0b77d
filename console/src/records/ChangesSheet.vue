<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Correction } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { count } from "./amounts";

/** What people changed in the record, and how to take it back. */
const { data: changes, error: loadError, load } = useLoad(() => api.get<Correction[]>("corrections"));
const { busy, error, run } = useAction();

async function undo(change: Correction) {
  await run(() => api.post(`corrections/${change.id}/undo`), t("Undone: the readings are as they were."));
  await load();
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("What people changed") }}</h2>
    <ProblemNote :error="loadError ?? error" />
    <table v-if="changes?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("When") }}</th>
          <th>{{ t("Who") }}</th>
          <th>{{ t("What") }}</th>
          <th>{{ t("Range") }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="change in changes" :key="change.id">
          <td>{{ moment(change.at) }}</td>
          <td>{{ change.person }}</td>
          <td>
            {{
              t("{points}: {before} readings became {after}", {
                points: change.points.join(", "),
                before: count(change.before),
                after: count(change.after),
              })
            }}
            <div class="soft small">{{ change.note }}</div>
          </td>
          <td class="small">{{ moment(change.from) }} – {{ moment(change.until) }}</td>
          <td>
            <span v-if="change.undoneAt" class="soft small">{{
              t("undone by {undoneBy}", { undoneBy: change.undoneBy })
            }}</span>
            <el-button v-else :loading="busy" @click="undo(change)">{{ t("Undo") }}</el-button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="changes" class="soft">
      {{ t("Nothing. Readings can be erased on a point's page, and frames read again on a device's page.") }}
    </p>
  </section>
</template>
