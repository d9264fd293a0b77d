<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { About } from "@/api/types";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";

/** Which version runs here, on what and since when. */
const { data, error } = useLoad(() => api.get<About>("about"));
</script>

<template>
  <section class="sheet">
    <h2>{{ t("About Open Pasture") }}</h2>
    <ProblemNote :error="error" />
    <dl v-if="data" class="facts">
      <div>
        <dt>{{ t("Version") }}</dt>
        <dd>{{ data.version }}</dd>
      </div>
      <div>
        <dt>{{ t("Running since") }}</dt>
        <dd>{{ moment(data.startedAt) }}</dd>
      </div>
      <div>
        <dt>Java</dt>
        <dd>{{ data.java }}</dd>
      </div>
      <div>
        <dt>{{ t("System") }}</dt>
        <dd>{{ data.system }}</dd>
      </div>
      <div>
        <dt>{{ t("Licence") }}</dt>
        <dd>{{ data.licence }}</dd>
      </div>
      <div>
        <dt>{{ t("API description") }}</dt>
        <dd>
          <a href="/api/openapi">/api/openapi</a>
        </dd>
      </div>
    </dl>
  </section>
</template>
