<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { LimitSet, Place } from "@/api/types";
import { averagingWords } from "@/limits/averaging";
import LimitQuestions from "@/limits/LimitQuestions.vue";
import { withSets } from "@/limits/questions";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { useSession } from "@/shell/session";
import { computed, reactive, ref } from "vue";
import { usePlaces } from "./places";
import RotationFields from "./RotationFields.vue";

/** Makes a place, or changes one. */
const { place, parent } = defineProps<{ place?: Place; parent?: string }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const session = useSession();
const { busy, error, run } = useAction();
const version = useVersion(place && "places/" + place.id);

const parents = computed(() => places.editable.filter((one) => one.kind !== "asset" && one.id !== place?.id));
const form = reactive({
  kind: place?.kind ?? (parents.value.length ? "asset" : "site"),
  name: place?.name ?? "",
  parentId: place?.parentId ?? parent ?? parents.value[0]?.id ?? "",
  assetKind: place?.assetKind ?? "",
  limitSets: place?.limitSets ?? [],
  rotation: place?.rotation ?? { rpm: null, speedPointId: null, bearings: [] },
  guidance: place?.guidance ?? "",
  zone: place?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
});
/** Most places do not turn: what belongs to that is shown where something is entered, or when it is asked for. */
const turns = ref(form.rotation.rpm !== null || !!form.rotation.speedPointId || form.rotation.bearings.length > 0);
const asking = ref(false);

function fit(sets: LimitSet[]) {
  asking.value = false;
  form.limitSets = withSets(form.limitSets, sets, places.limitsById);
}

/** What is averaged for limits that the place does not have yet. */
const means = computed(() => [
  ...new Set(
    form.limitSets
      .filter((id) => !place?.limitSets.includes(id))
      .flatMap((id) => places.limitsById.get(id) ?? [])
      .filter((set) => set.averaging.rule !== "last")
      .map((set) => averagingWords(set.averaging)),
  ),
]);
const zones = Intl.supportedValuesOf("timeZone");
const kinds = computed(() => [
  ...(session.owner ? [{ id: "site", name: t("Site: plant, farm, station") }] : []),
  { id: "area", name: t("Area: building, room, field") },
  { id: "asset", name: t("Asset: machine, tank, room, vehicle") },
]);

async function save() {
  const kind = form.kind + "s";
  const body =
    form.kind === "site"
      ? { name: form.name, zone: form.zone, latitude: place?.latitude ?? null, longitude: place?.longitude ?? null }
      : form.kind === "area"
        ? { name: form.name, parentId: form.parentId }
        : {
            name: form.name,
            parentId: form.parentId,
            kind: form.assetKind,
            limitSets: form.limitSets,
            rotation: form.rotation,
            guidance: form.guidance,
          };
  const ok = await run(
    async () => {
      await (place ? api.put(`${kind}/${place.id}`, body, await version()) : api.post(kind, body));
      await places.load();
    },
    place ? t("Saved.") : t("{name} is made.", { name: form.name }),
  );
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="place ? t('Change {name}', { name: place.name }) : t('Add a place')"
    :save-label="place ? t('Save') : t('Add')"
    :error="error"
    :busy="busy"
    :disabled="!form.name"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item v-if="!place" :label="t('What is it?')" for="place-kind">
      <el-select id="place-kind" v-model="form.kind" :aria-label="t('What is it?')">
        <el-option v-for="kind in kinds" :key="kind.id" :value="kind.id" :label="kind.name" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Name')" for="place-name"
      ><el-input id="place-name" v-model="form.name" autofocus
    /></el-form-item>
    <el-form-item v-if="form.kind !== 'site'" :label="t('Part of')" for="place-parent">
      <el-select id="place-parent" v-model="form.parentId" filterable :aria-label="t('Part of')">
        <el-option v-for="one in parents" :key="one.id" :value="one.id" :label="places.label(one)" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="form.kind === 'site'" :label="t('Time zone')" for="place-zone">
      <el-select id="place-zone" v-model="form.zone" filterable :aria-label="t('Time zone')">
        <el-option v-for="zone in zones" :key="zone" :value="zone" :label="zone" />
      </el-select>
    </el-form-item>
    <template v-if="form.kind === 'asset'">
      <el-form-item :label="t('In a word: pump, silo, room …')" for="place-word"
        ><el-input id="place-word" v-model="form.assetKind"
      /></el-form-item>
      <el-form-item :label="t('Limit sets that hold for its points')" for="place-limits">
        <el-select
          id="place-limits"
          v-model="form.limitSets"
          multiple
          filterable
          :aria-label="t('Limit sets')"
          :placeholder="t('none')"
        >
          <el-option v-for="set in places.limits" :key="set.id" :value="set.id" :label="said(set.title)" />
        </el-select>
        <el-button link type="primary" @click="asking = true">{{ t("Find the limits that fit …") }}</el-button>
        <p v-if="means.length" class="soft small">
          {{ t("Adds what these limits compare to each point of their quantity: {join}.", { join: means.join(", ") }) }}
        </p>
      </el-form-item>
      <el-form-item :label="t('Instructions for every alert here')" for="place-guidance">
        <el-input
          id="place-guidance"
          v-model="form.guidance"
          type="textarea"
          :rows="3"
          maxlength="4000"
          :placeholder="t('Lock the main switch before you open it. Manual: https://…')"
        />
        <p class="soft small">{{ t("Shown after what the rule says. Web addresses become links to documents.") }}</p>
      </el-form-item>
      <LimitQuestions v-if="asking" @close="asking = false" @found="fit" />
      <RotationFields v-if="turns" v-model="form.rotation" />
      <el-button v-else link type="primary" class="more" @click="turns = true">{{
        t("Speed and bearings of a rotating machine …")
      }}</el-button>
    </template>
  </FormDialog>
</template>
