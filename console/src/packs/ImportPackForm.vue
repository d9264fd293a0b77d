<script setup lang="ts">
import { t } from "@/language";
import { parted } from "@/alerts/recipients";
import { api } from "@/api/http";
import type { PackPart, PackPlan, Point, ShippedPack } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive, ref, shallowRef } from "vue";
import { fateWords, kindWords } from "./fates";

/** Imports a pack: a file or one that ships. It shows what will happen before it does, and asks for what it needs. */
const { shipped, placeId } = defineProps<{
  shipped?: ShippedPack;
  /** The asset for which it is imported, where that is known. */
  placeId?: string;
}>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();
const planned = useAction();
const file = ref("");
const fileName = ref("");
const plan = shallowRef<PackPlan>();
const done = ref(false);
const form = reactive({
  places: {} as Record<string, string>,
  points: {} as Record<string, string>,
  leaveOut: [] as string[],
  replace: [] as string[],
  recipients: "",
});
let turn = 0;

const request = () => ({
  file: shipped ? null : file.value,
  shipped: shipped?.id ?? null,
  places: form.places,
  points: form.points,
  leaveOut: form.leaveOut,
  replace: form.replace,
  recipients: parted(form.recipients),
});

/** Asks what would happen with what is chosen now; of two questions the later one counts. */
async function look() {
  const mine = ++turn;
  await planned.run(async () => {
    const answer = await api.post<PackPlan>("packs/plan", { ...request(), recipients: [] });
    if (mine === turn) {
      plan.value = answer;
    }
  });
}

async function first() {
  form.places = {};
  form.points = {};
  form.leaveOut = [];
  form.replace = [];
  plan.value = undefined;
  await look();
  // The asset for which the page was opened stands for the one that the pack is about.
  const open = plan.value as PackPlan | undefined;
  const only = open?.places.filter((match) => match.needed.kind === "asset") ?? [];
  if (placeId && only.length === 1 && only[0]) {
    await choosePlace(only[0].needed.key, placeId);
  }
}

async function read(event: Event) {
  const chosen = (event.target as HTMLInputElement).files?.[0];
  if (chosen) {
    fileName.value = chosen.name;
    file.value = await chosen.text();
    await first();
  }
}

async function choosePlace(key: string, id: string) {
  form.places = { ...form.places, [key]: id };
  // Points are proposed anew for another place.
  const here = plan.value?.points.filter((match) => match.needed.place === key).map((match) => match.needed.key);
  form.points = Object.fromEntries(Object.entries(form.points).filter(([point]) => !here?.includes(point)));
  await look();
}

async function choosePoint(key: string, id: string) {
  form.points = { ...form.points, [key]: id };
  await look();
}

async function toggle(list: "leaveOut" | "replace", part: PackPart, on: boolean) {
  form[list] = on ? [...form[list], part.key] : form[list].filter((key) => key !== part.key);
  await look();
}

const placesFor = (kind: string) => places.editable.filter((place) => place.kind === kind);
function pointsFor(needed: PackPlan["points"][number]["needed"]): Point[] {
  const place = plan.value?.places.find((match) => match.needed.key === needed.place)?.placeId;
  return points.all.filter((point) => point.quantity === needed.quantity && (!place || point.placeId === place));
}
const stayed = (part: PackPart) =>
  part.fate === "changed-here" || part.fate === "removed-here" || form.replace.includes(part.key);
const removable = (part: PackPart) => !["same", "not-in-pack"].includes(part.fate);
const news = computed(
  () => plan.value?.parts.filter((part) => part.fate === "new" || part.fate === "updated").length ?? 0,
);
const hasRules = computed(() => plan.value?.parts.some((part) => part.key.startsWith("rule/") && part.fate === "new"));

async function save() {
  if (done.value) {
    emit("close");
    return;
  }
  await run(async () => {
    plan.value = await api.post<PackPlan>("packs", request());
    done.value = true;
  }, t("The pack is imported."));
}

if (shipped) {
  void first();
}
</script>

<template>
  <FormDialog
    :title="shipped ? t('Import: {name}', { name: shipped.name }) : t('Import a pack')"
    :save-label="done ? t('Close') : news ? t('Import {n} part | Import {n} parts', { n: news }) : t('Import')"
    :error="error"
    :busy="busy"
    :disabled="!done && (!plan?.possible || !news || planned.busy.value)"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item v-if="!shipped && !done" :label="t('File')" for="pack-file">
      <input id="pack-file" type="file" accept=".yaml,.yml,.json" @change="read" />
    </el-form-item>
    <ProblemNote :error="planned.error.value" />
    <template v-if="plan">
      <p v-if="!shipped">
        <strong>{{ plan.name }}</strong> <span class="soft">{{ plan.about }}</span>
      </p>
      <p v-if="plan.again && !done" class="small">
        {{ t("This pack was imported here before. What nobody changed since is updated; what was changed stays.") }}
      </p>
      <template v-if="!done">
        <el-form-item
          v-for="match in plan.places"
          :key="match.needed.key"
          :label="
            t('{name} ({kind} in the pack)', {
              name: match.needed.name,
              kind: match.needed.assetKind || match.needed.kind,
            })
          "
          :for="`pack-place-${match.needed.key}`"
        >
          <el-select
            :id="`pack-place-${match.needed.key}`"
            :model-value="match.placeId ?? ''"
            filterable
            :aria-label="t('Place for {name}', { name: match.needed.name })"
            :placeholder="t('select a place')"
            @update:model-value="(id: string) => choosePlace(match.needed.key, id)"
          >
            <el-option
              v-for="place in placesFor(match.needed.kind)"
              :key="place.id"
              :value="place.id"
              :label="places.label(place)"
            />
          </el-select>
        </el-form-item>
        <el-form-item
          v-for="match in plan.points"
          :key="match.needed.key"
          :label="`${match.needed.name} (${match.needed.quantity.replace(/-/g, ' ')})`"
          :for="`pack-point-${match.needed.key}`"
        >
          <el-select
            :id="`pack-point-${match.needed.key}`"
            :model-value="match.pointId ?? ''"
            filterable
            clearable
            :empty-values="[null, undefined]"
            :aria-label="t('Point for {name}', { name: match.needed.name })"
            :placeholder="t('select a point')"
            @update:model-value="(id?: string) => choosePoint(match.needed.key, id ?? '')"
          >
            <el-option v-for="point in pointsFor(match.needed)" :key="point.id" :value="point.id" :label="point.name" />
          </el-select>
        </el-form-item>
        <el-form-item
          v-if="hasRules"
          :label="t('Recipients of the new rules (e-mail addresses, telephone numbers)')"
          for="pack-told"
        >
          <el-input id="pack-told" v-model="form.recipients" :placeholder="t('nobody')" />
        </el-form-item>
      </template>
      <table class="rows cards">
        <thead>
          <tr>
            <th v-if="!done" scope="col">{{ t("Import") }}</th>
            <th scope="col">{{ t("Part") }}</th>
            <th scope="col">{{ done ? t("Result") : t("What happens") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="part in plan.parts" :key="part.key">
            <td v-if="!done" :data-label="t('Import')">
              <el-checkbox
                v-if="stayed(part)"
                :model-value="form.replace.includes(part.key)"
                :aria-label="t('Replace {name}', { name: part.name })"
                @change="(on) => toggle('replace', part, on === true)"
              />
              <el-checkbox
                v-else-if="removable(part)"
                :model-value="!form.leaveOut.includes(part.key)"
                :aria-label="t('Import {name}', { name: part.name })"
                @change="(on) => toggle('leaveOut', part, on !== true)"
              />
            </td>
            <td class="wide">
              {{ part.name }} <span class="soft small">{{ kindWords(part.key) }}</span>
            </td>
            <td :data-label="t('What happens')" :class="{ strong: part.fate === 'impossible' }">
              {{ fateWords(part, done) }}
              <div v-if="part.why" class="small">{{ part.why }}</div>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!done && !plan.possible" class="small">
        {{ t("Select the missing places and points, or clear the check marks of parts that are not possible.") }}
      </p>
      <p v-else-if="!done && !news" class="small">{{ t("Everything is here as in the pack.") }}</p>
    </template>
    <p v-else-if="!shipped" class="soft small">
      {{ t("A YAML file that was made with “Make a pack”, or written by hand.") }}
    </p>
  </FormDialog>
</template>

<style scoped>
.strong {
  font-weight: 600;
}
table {
  margin-top: 0.5rem;
}
td {
  vertical-align: middle;
}
</style>
