<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { ImportedPack, ShippedPack } from "@/api/types";
import { useAction } from "@/look/act";
import ConfirmButton from "@/look/ConfirmButton.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import { useRoute } from "vue-router";
import ImportPackForm from "./ImportPackForm.vue";
import MakePackForm from "./MakePackForm.vue";

/** Files with rules, limit sets, device models and dashboards: import one, make one, see what was imported. */
const places = usePlaces();
const route = useRoute();
const { data: imported, error, load } = useLoad(() => api.get<ImportedPack[]>("packs"));
const { data: shipped, error: notShipped } = useLoad(() => api.get<ShippedPack[]>("packs/shipped"));
onChanged(["registry"], load);
const { error: failed, run } = useAction();
const making = ref(false);
const taking = ref<ShippedPack | "file">();
const asset = computed(() => places.byId.get(String(route.query.asset ?? "")));
/** Those for the kind of the asset first, where the page was opened for one. */
const offered = computed(() => {
  const kind = asset.value?.assetKind?.toLowerCase();
  return [...(shipped.value ?? [])].sort(
    (a, b) => Number(b.assetKind?.toLowerCase() === kind) - Number(a.assetKind?.toLowerCase() === kind),
  );
});

function where(pack: ImportedPack): string {
  const names = pack.placeIds.flatMap((id) => places.byId.get(id)?.name ?? []);
  return names.join(", ") || (places.byId.get(pack.siteId ?? "")?.name ?? t("all sites"));
}

function contents(pack: ImportedPack): string {
  return [
    pack.rules ? t("{n} rule | {n} rules", { n: pack.rules }) : "",
    pack.dashboards ? t("{n} dashboard | {n} dashboards", { n: pack.dashboards }) : "",
    pack.limitSets ? t("{n} limit set | {n} limit sets", { n: pack.limitSets }) : "",
    pack.deviceModels ? t("{n} device model | {n} device models", { n: pack.deviceModels }) : "",
  ]
    .filter(Boolean)
    .join(", ");
}

async function remove(pack: ImportedPack) {
  await run(() => api.remove("packs/" + pack.id), t("{name} is removed.", { name: pack.name }));
  await load();
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <div>
        <h1>{{ t("Packs") }}</h1>
        <p class="soft small">
          {{
            t(
              "A pack is a file with rules, limit sets, device models and dashboards, to hand to a colleague. Who is notified is not in it.",
            )
          }}
        </p>
      </div>
      <el-button @click="making = true">{{ t("Make a pack …") }}</el-button>
      <el-button v-if="places.editable.length" type="primary" @click="taking = 'file'">{{
        t("Import a file …")
      }}</el-button>
    </header>
    <ProblemNote :error="error ?? notShipped ?? failed" />
    <p v-if="asset" class="sheet">
      {{ t("For") }} <RouterLink :to="`/places/${asset.id}`">{{ asset.name }}</RouterLink>{{
        t(": select a pack below, or import a file.")
      }}
    </p>

    <section v-if="imported?.length" class="sheet">
      <h2>{{ t("Imported") }}</h2>
      <table class="rows cards">
        <thead>
          <tr>
            <th scope="col">{{ t("Pack") }}</th>
            <th scope="col">{{ t("For") }}</th>
            <th scope="col">{{ t("Contents") }}</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="pack in imported" :key="pack.id">
            <td>
              <strong>{{ pack.name }}</strong>
            </td>
            <td :data-label="t('For')">{{ where(pack) }}</td>
            <td :data-label="t('Contents')">{{ contents(pack) }}</td>
            <td>
              <ConfirmButton
                v-if="places.editable.length"
                link
                :says="t('Remove its rules and dashboards that nobody has changed? Limit sets and device models stay.')"
                @confirm="remove(pack)"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </section>

    <section>
      <h2>{{ t("Included packs") }}</h2>
      <div class="list">
        <article v-for="pack in offered" :key="pack.id" class="sheet">
          <h3>{{ pack.name }}</h3>
          <p class="small">{{ pack.about }}</p>
          <ul class="small soft">
            <li v-for="rule in pack.rules" :key="rule">{{ rule }}</li>
          </ul>
          <el-button v-if="places.editable.length" @click="taking = pack">{{ t("Import …") }}</el-button>
        </article>
      </div>
    </section>

    <MakePackForm v-if="making" @close="making = false" />
    <ImportPackForm
      v-if="taking"
      :shipped="taking === 'file' ? undefined : taking"
      :place-id="asset?.id"
      @close="((taking = undefined), load())"
    />
  </div>
</template>

<style scoped>
h2 {
  margin-bottom: 0.6rem;
}
.list {
  display: grid;
  gap: 0.75rem;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
}
.list .sheet {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.list h3,
.list p,
.list ul {
  margin: 0;
}
.list ul {
  padding-left: 1.1rem;
  flex: 1;
}
.list .el-button {
  align-self: flex-start;
}
</style>
