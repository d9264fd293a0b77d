<script setup lang="ts">
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
import { useRoute } from "vue-router";
import { averagingWords } from "./averaging";
import LimitForm from "./LimitForm.vue";
import LimitTrial from "./LimitTrial.vue";

const places = usePlaces();
const points = usePoints();
const route = useRoute();
const search = ref("");
const editing = ref<LimitSet>();
const trying = ref<LimitSet>();
const { error, run } = useAction();
const shown = computed(() =>
  places.limits.filter((set) =>
    [set.title, set.source.document, QUANTITIES[set.quantity] ?? set.quantity, set.appliesTo].some((text) =>
      text.toLowerCase().includes(search.value.toLowerCase()),
    ),
  ),
);
const used = (set: LimitSet) => points.all.filter((point) => point.limitSet === set.id).length;

async function copy(set: LimitSet) {
  await run(async () => {
    const made = await api.post<LimitSet>("limits", { ...set, title: set.title + ", adjusted", shipped: false });
    await places.load();
    editing.value = made;
  });
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
        <h1>Limits</h1>
        <p class="soft small">
          Each set names its source. The published standard is authoritative, not this program. Shipped sets stay as
          they are; copy one to adjust it. <RouterLink to="/packs">Packs</RouterLink> share your own sets as a file.
        </p>
      </div>
      <el-input
        v-model="search"
        aria-label="Search limits"
        placeholder="pump, milk, ISO …"
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
        <h2>{{ set.title }}</h2>
        <span v-if="used(set)" class="soft small">holds for {{ used(set) }} points</span>
        <template v-if="places.editable.length">
          <el-button link type="primary" @click="trying = set">Test …</el-button>
          <el-button v-if="set.shipped" link type="primary" @click="copy(set)">Copy and adjust</el-button>
          <el-button v-else link type="primary" @click="editing = set">Change</el-button>
        </template>
      </div>
      <p class="soft small">
        {{ set.source.document }} {{ set.source.edition }} {{ set.source.clause }} · compares the
        <strong>{{ averagingWords(set.averaging) }}</strong> · {{ set.appliesTo }}
      </p>
      <div class="zones">
        <div v-for="zone in limitsAsRead(set).zones" :key="zone.label" class="zone" :class="zone.severity">
          <strong>{{ zone.label }}</strong>
          <span
            >{{
              zone.from === null
                ? "up to " + zone.to
                : zone.to === null
                  ? (zone.fromIncluded ? "from " : "above ") + zone.from
                  : `${zone.from} to ${zone.to}`
            }}
            {{ limitsAsRead(set).unit }}</span
          >
          <FenceMark :severity="zone.severity" />
          <span class="soft small">{{ zone.meaning }}</span>
        </div>
      </div>
    </section>
    <LimitForm v-if="editing" :set="editing" :used="used(editing)" @close="editing = undefined" />
    <el-dialog
      v-if="trying"
      model-value
      :title="'Test ' + trying.title"
      width="min(56rem, 94vw)"
      @close="trying = undefined"
    >
      <p class="soft">How points would have stood by this set. Nothing is changed.</p>
      <LimitTrial :set="trying" somewhere />
    </el-dialog>
  </div>
</template>

<style scoped>
.zones {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 2px;
}
.zone {
  display: grid;
  align-content: start;
  padding: 0.5rem 0.6rem;
  background: var(--ramp-0);
}
.zone.advisory {
  background: var(--advisory-fill);
}
.zone.warning {
  background: var(--warning-fill);
}
.zone.critical {
  background: var(--critical-fill);
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
