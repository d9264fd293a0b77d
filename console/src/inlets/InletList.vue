<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Inlet } from "@/api/types";
import { age, every, now } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import InletForm from "./InletForm.vue";
import StateWord from "@/devices/StateWord.vue";

/** Ways in for what is no LoRaWAN device: ports, serial lines, inboxes. */
const places = usePlaces();
const making = ref(false);
const { data, error, load } = useLoad(async () => (await api.get<Inlet[]>("inlets")).filter((one) => one.id !== null));
onChanged(["registry", "inlet", "strangers"], load);
every(10, () => void load());
const mayAdd = computed(() => places.editable.some((place) => place.kind === "site"));
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Inlets") }}</h2>
      <el-button v-if="mayAdd" type="primary" @click="making = true">{{ t("Make an inlet") }}</el-button>
    </div>
    <p class="soft small">
      {{
        t(
          "Ways in beside the ports for LoRaWAN gateways: bridges that hand over text or bytes, relays of beacons, hubs and boards that post.",
        )
      }}
    </p>
    <ProblemNote :error="error" />
    <table v-if="data?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("Inlet") }}</th>
          <th>{{ t("State") }}</th>
          <th>{{ t("Last") }}</th>
          <th class="num">{{ t("Frames") }}</th>
          <th class="num">{{ t("Not usable") }}</th>
          <th class="num">{{ t("Devices") }}</th>
          <th>{{ t("Unknown") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="inlet in data" :key="inlet.id ?? ''">
          <td>
            <RouterLink :to="`/fleet/inlets/${inlet.id}`">{{ inlet.name }}</RouterLink>
            <div class="soft small">{{ inlet.siteName }} · {{ inlet.address }}</div>
          </td>
          <td>
            <StateWord :state="inlet.state" />
            <div class="soft small">{{ inlet.state === "paused" ? "" : said(inlet.reason) }}</div>
          </td>
          <td>{{ age(inlet.lastAt, now) }}</td>
          <td class="num">{{ inlet.received }}</td>
          <td class="num">{{ inlet.refused + inlet.lost }}</td>
          <td class="num">{{ inlet.devices }}</td>
          <td>
            <RouterLink v-if="inlet.strangers" :to="`/fleet/inlets/${inlet.id}`">{{
              t("{strangers} to admit", { strangers: inlet.strangers })
            }}</RouterLink>
          </td>
        </tr>
      </tbody>
    </table>
    <EmptyState v-else-if="data" :title="t('No inlets yet')">{{
      t("Make one, let something be sent to it, and whoever is heard there can be admitted with a click.")
    }}</EmptyState>
    <InletForm v-if="making" @close="((making = false), load())" />
  </section>
</template>
