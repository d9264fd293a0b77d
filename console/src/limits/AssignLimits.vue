<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { LimitSet } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref, watch } from "vue";
import { averagingWords } from "./averaging";
import { withSets } from "./questions";

/** Gives limit sets to an asset, in place of those that it has for the same. */
const { sets } = defineProps<{ sets: LimitSet[] }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();
const measures = (id: string) => points.ofPlace(id).some((one) => sets.some((set) => set.quantity === one.quantity));
/** Those that measure what the limits are for come first. */
const assets = computed(() =>
  places.editable
    .filter((one) => one.kind === "asset")
    .sort((one, other) => Number(measures(other.id)) - Number(measures(one.id))),
);
const chosen = ref("");
const asset = computed(() => assets.value.find((one) => one.id === chosen.value));
const after = computed(() => withSets(asset.value?.limitSets ?? [], sets, places.limitsById));
const gone = computed(() => (asset.value?.limitSets ?? []).filter((id) => !after.value.includes(id)));
const means = computed(() => sets.filter((set) => set.averaging.rule !== "last"));

/** How the asset was when it was chosen. */
let version = useVersion(undefined);
watch(chosen, (id) => (version = useVersion("places/" + id)));

async function save() {
  const one = asset.value;
  if (!one) {
    return;
  }
  const ok = await run(
    async () => {
      const { name, parentId, assetKind, rotation, guidance } = one;
      const body = { name, parentId, kind: assetKind, rotation, guidance, limitSets: after.value };
      await api.put("assets/" + one.id, body, await version());
      await Promise.all([places.load(), points.load()]);
    },
    t("The limits hold for {name}.", { name: one.name }),
  );
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Assign limits to an asset')"
    :save-label="t('Assign limits')"
    :error="error"
    :busy="busy"
    :disabled="!asset"
    @save="save"
    @close="emit('close')"
  >
    <ul>
      <li v-for="set in sets" :key="set.id">{{ said(set.title) }}</li>
    </ul>
    <el-form-item :label="t('Asset')" for="assign-asset">
      <el-select id="assign-asset" v-model="chosen" filterable :aria-label="t('Asset')" :placeholder="t('choose one')">
        <el-option v-for="one in assets" :key="one.id" :value="one.id" :label="places.label(one)" />
      </el-select>
    </el-form-item>
    <template v-if="asset">
      <p v-if="!measures(asset.id)">
        {{ t("Nothing is measured there that these limits are for. They will hold for points that are added later.") }}
      </p>
      <p v-for="id in gone" :key="id">
        {{ t("In place of") }} <strong>{{ said(places.limitsById.get(id)?.title ?? id) }}</strong>.
      </p>
      <p v-for="set in means" :key="set.id" class="soft small">
        {{
          t("Adds the {averagingWords} of each of its points as a point.", {
            averagingWords: averagingWords(set.averaging),
          })
        }}
      </p>
    </template>
  </FormDialog>
</template>
