<script setup lang="ts">
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
  await run(() => api.post(`corrections/${change.id}/undo`), "Undone: the readings are as they were.");
  await load();
}
</script>

<template>
  <section class="sheet">
    <h2>What people changed</h2>
    <ProblemNote :error="loadError ?? error" />
    <table v-if="changes?.length" class="rows cards">
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th>Range</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="change in changes" :key="change.id">
          <td>{{ moment(change.at) }}</td>
          <td>{{ change.person }}</td>
          <td>
            {{ change.points.join(", ") }}: {{ count(change.before) }} readings became {{ count(change.after) }}
            <div class="soft small">{{ change.note }}</div>
          </td>
          <td class="small">{{ moment(change.from) }} – {{ moment(change.until) }}</td>
          <td>
            <span v-if="change.undoneAt" class="soft small">undone by {{ change.undoneBy }}</span>
            <el-button v-else :loading="busy" @click="undo(change)">Undo</el-button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="changes" class="soft">
      Nothing. Readings can be erased on a point's page, and frames read again on a device's page.
    </p>
  </section>
</template>
