<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { LimitSet } from "@/api/types";
import { useAction } from "@/look/act";
import FenceMark from "@/look/FenceMark.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { QUANTITIES } from "@/points/quantities";
import { limitsAsRead } from "@/look/units";
import { computed, nextTick, onMounted, ref } from "vue";
import { useRoute, useRouter } from "vue-router";
import { averagingWords } from "./averaging";
import AssignLimits from "./AssignLimits.vue";
import LimitForm from "./LimitForm.vue";
import LimitQuestions from "./LimitQuestions.vue";
import LimitTrial from "./LimitTrial.vue";

const places = usePlaces();
const points = usePoints();
const route = useRoute();
const router = useRouter();
const search = ref("");
const editing = ref<LimitSet>();
const trying = ref<LimitSet>();
const asking = ref(false);
const fitting = ref<LimitSet[]>();
const { error, run } = useAction();
const shown = computed(() =>
  places.limits.filter((set) =>
    [
      set.title,
      said(set.title),
      set.source.document,
      QUANTITIES[set.quantity] ?? set.quantity,
      said(set.appliesTo),
    ].some((text) => text.toLowerCase().includes(search.value.toLowerCase())),
  ),
);
const used = (set: LimitSet) => points.all.filter((point) => point.limitSet === set.id).length;

async function copy(set: LimitSet) {
  await run(async () => {
    const made = await api.post<LimitSet>("limits", {
      ...set,
      title: t("{title}, adjusted", { title: said(set.title) }),
      shipped: false,
    });
    await places.load();
    editing.value = made;
  });
}

async function found(sets: LimitSet[]) {
  asking.value = false;
  fitting.value = places.editable.length ? sets : undefined;
  await router.push("/limits#" + sets[0]?.id);
  document.getElementById(sets[0]?.id ?? "")?.scrollIntoView({ block: "center" });
}

onMounted(async () => {
  await nextTick();
  document.getElementById(route.hash.slice(1))?.scrollIntoView({ block: "center" });
});
</script>

<template>
  <div class="page">
    <header class="page-head">
      <div>
        <h1>{{ t("Limits") }}</h1>
        <p class="soft small">
          {{
            t(
              "Each set names its source. The published standard is authoritative, not this program. Shipped sets stay as they are; copy one to adjust it.",
            )
          }}
          <RouterLink to="/packs">{{ t("Packs") }}</RouterLink> {{ t("share your own sets as a file.") }}
        </p>
      </div>
      <el-button @click="asking = true">{{ t("Find the limits that fit …") }}</el-button>
      <el-input
        v-model="search"
        :aria-label="t('Search limits')"
        :placeholder="t('pump, milk, ISO …')"
        clearable
        style="max-width: 16rem"
      />
    </header>
    <ProblemNote :error="error" />
    <section
      v-for="set in shown"
      :id="set.id"
      :key="set.id"
      class="sheet"
      :class="{ meant: route.hash === '#' + set.id }"
    >
      <div class="sheet-head">
        <h2>{{ said(set.title) }}</h2>
        <span v-if="used(set)" class="soft small">{{
          t("holds for {n} point | holds for {n} points", { n: used(set) })
        }}</span>
        <template v-if="places.editable.length">
          <el-button link type="primary" @click="trying = set">{{ t("Test …") }}</el-button>
          <el-button v-if="set.shipped" link type="primary" @click="copy(set)">{{ t("Copy and adjust") }}</el-button>
          <el-button v-else link type="primary" @click="editing = set">{{ t("Change") }}</el-button>
        </template>
      </div>
      <p class="soft small">
        {{
          t("{document} {edition} {clause} · compares the", {
            document: set.source.document,
            edition: set.source.edition,
            clause: set.source.clause,
          })
        }}
        <strong>{{ averagingWords(set.averaging) }}</strong> · {{ said(set.appliesTo) }}
      </p>
      <div class="zones">
        <div v-for="zone in limitsAsRead(set).zones" :key="zone.label" class="zone" :class="zone.severity">
          <strong>{{ said(zone.label) }}</strong>
          <span
            >{{
              zone.from === null
                ? t("up to {to}", { to: zone.to })
                : zone.to === null
                  ? zone.fromIncluded
                    ? t("from {limit}", { limit: zone.from })
                    : t("above {limit}", { limit: zone.from })
                  : t("{from} to {to}", { from: zone.from, to: zone.to })
            }}
            {{ limitsAsRead(set).unit }}</span
          >
          <FenceMark :severity="zone.severity" />
          <span class="soft small">{{ said(zone.meaning) }}</span>
        </div>
      </div>
    </section>
    <LimitQuestions
      v-if="asking"
      :use-label="places.editable.length ? t('Assign to an asset …') : t('Show')"
      @close="asking = false"
      @found="found"
    />
    <AssignLimits v-if="fitting" :sets="fitting" @close="fitting = undefined" />
    <LimitForm v-if="editing" :set="editing" :used="used(editing)" @close="editing = undefined" />
    <el-dialog
      v-if="trying"
      model-value
      :title="t('Test {title}', { title: said(trying.title) })"
      width="min(56rem, 94vw)"
      @close="trying = undefined"
    >
      <p class="soft">{{ t("How points would have stood by this set. Nothing is changed.") }}</p>
      <LimitTrial :set="trying" somewhere />
    </el-dialog>
  </div>
</template>

<style scoped>
.zones {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 4px;
}
.zone {
  display: grid;
  align-content: start;
  padding: 0.5rem 0.6rem;
  border: 1px solid var(--line);
  border-top: 4px solid var(--line-strong);
}
.zone.advisory {
  border-top-color: var(--advisory);
}
.zone.warning {
  border-top-color: var(--warning);
}
.zone.critical {
  border-top-color: var(--critical);
}
.zone .soft {
  color: var(--ink);
}
.meant {
  border-color: var(--heather);
}
p {
  margin: 0.2rem 0 0.6rem;
}
</style>
