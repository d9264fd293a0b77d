<script setup lang="ts">
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Dashboard, DashboardSummary } from "@/api/types";
import { useAction } from "@/look/act";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive, ref } from "vue";
import { useRouter } from "vue-router";

const places = usePlaces();
const points = usePoints();
const router = useRouter();
const making = ref(false);
const form = reactive({ name: "", siteId: "", pointIds: [] as string[] });
const { data: dashboards, error, load } = useLoad(() => api.get<DashboardSummary[]>("dashboards"));
onChanged(["registry"], load);
const action = useAction();
const sites = computed(() => places.editable.filter((place) => place.kind === "site"));

/** A place in the list stands for all its points. */
const choices = computed(() => [
  ...places.places
    .filter((place) => points.below(place.id).length)
    .map((place) => ({ key: "place:" + place.id, label: `everything of ${places.label(place)}` })),
  ...points.all.map((point) => ({
    key: point.id,
    label: `${places.byId.get(point.placeId)?.name ?? ""}: ${point.name}`,
  })),
]);

async function make() {
  const ids = form.pointIds.flatMap((key) =>
    key.startsWith("place:") ? points.below(key.slice(6)).map((point) => point.id) : [key],
  );
  await action.run(async () => {
    const made = await api.post<Dashboard>("dashboards", {
      name: form.name,
      siteId: form.siteId || null,
      pointIds: [...new Set(ids)],
    });
    await router.push("/dashboards/" + made.id);
  });
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Dashboards</h1>
      <el-button type="primary" @click="making = true">Make a dashboard</el-button>
    </header>
    <ProblemNote :error="error" />
    <section class="list">
      <RouterLink v-for="one in dashboards" :key="one.id" class="sheet" :to="`/dashboards/${one.id}`">
        <strong>{{ one.name }}</strong>
        <span class="soft small"
          >{{ one.panels }} panels · {{ one.mine ? "mine" : "shared with me"
          }}{{ one.siteId ? ", seen by " + (places.byId.get(one.siteId)?.name ?? "a site") : "" }}</span
        >
      </RouterLink>
    </section>
    <section v-if="dashboards && !dashboards.length" class="sheet">
      <EmptyState title="No dashboards yet"
        >Each place and point has its own page already. A dashboard puts together what belongs together for
        you.</EmptyState
      >
    </section>
    <el-dialog v-model="making" title="Make a dashboard">
      <el-form label-position="top" @submit.prevent="make">
        <el-form-item label="Name" for="dashboard-name"
          ><el-input id="dashboard-name" v-model="form.name"
        /></el-form-item>
        <el-form-item label="Points to begin with; panels are made for them" for="dashboard-points">
          <el-select
            id="dashboard-points"
            v-model="form.pointIds"
            multiple
            filterable
            aria-label="Points"
            placeholder="choose points or a place"
          >
            <el-option v-for="one in choices" :key="one.key" :value="one.key" :label="one.label" />
          </el-select>
        </el-form-item>
        <el-form-item v-if="sites.length" label="Visible to" for="dashboard-site">
          <el-select id="dashboard-site" v-model="form.siteId" aria-label="Visible to" :empty-values="[undefined]">
            <el-option value="" label="only me" />
            <el-option
              v-for="site in sites"
              :key="site.id"
              :value="site.id"
              :label="`everybody who may look at ${site.name}`"
            />
          </el-select>
        </el-form-item>
        <ProblemNote :error="action.error.value" />
      </el-form>
      <template #footer>
        <el-button @click="making = false">Cancel</el-button>
        <el-button type="primary" :loading="action.busy.value" :disabled="!form.name" @click="make">Make it</el-button>
      </template>
    </el-dialog>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 0.75rem;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
}
.list .sheet {
  display: grid;
  gap: 0.2rem;
  color: inherit;
  text-decoration: none;
}
.list .sheet:hover strong {
  text-decoration: underline;
}
</style>
