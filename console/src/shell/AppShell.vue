<script setup lang="ts">
import { t } from "@/language";
import { onLive } from "@/api/live";
import { helpFor } from "@/guide/pages";
import type { FleetNews } from "@/api/types";
import { useAlerts } from "@/alerts/alerts";
import { say } from "@/look/act";
import FenceMark from "@/look/FenceMark.vue";
import { worst } from "@/look/severity";
import SearchDialog from "@/search/SearchDialog.vue";
import NoticeBars from "@/shell/NoticeBars.vue";
import StarredLinks from "@/starred/StarredLinks.vue";
import { useSession } from "@/shell/session";
import {
  Bell,
  Box,
  DataBoard,
  Files,
  MapLocation,
  Monitor,
  Operation,
  Search,
  Setting,
  TrendCharts,
  User,
} from "@element-plus/icons-vue";
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { useRoute } from "vue-router";

const session = useSession();
const alerts = useAlerts();
const route = useRoute();
const more = ref(false);
const searching = ref(false);

const rooms = [
  { to: "/now", name: t("Now"), icon: Monitor },
  { to: "/places", name: t("Places"), icon: MapLocation },
  { to: "/alerts", name: t("Alerts"), icon: Bell },
  { to: "/dashboards", name: t("Dashboards"), icon: DataBoard },
  { to: "/fleet", name: t("Fleet"), icon: Box },
  { to: "/records", name: t("Records"), icon: Files },
  { to: "/limits", name: t("Limits"), icon: TrendCharts },
  { to: "/people", name: t("People"), icon: User },
  { to: "/settings", name: t("Settings"), icon: Setting },
];
const severity = computed(() => worst(alerts.waiting.map((alert) => alert.severity)));

onLive<FleetNews>("news", (news) => say(news.words));
watch(
  () => route.path,
  () => (more.value = false),
);

/** A slash begins a search, unless it is being typed into something. */
function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement | null;
  const typing = target?.closest?.("input, textarea, select, [contenteditable], .el-dialog");
  if (event.key === "/" && !typing && !event.ctrlKey && !event.metaKey && !event.altKey) {
    event.preventDefault();
    searching.value = true;
  }
}
onMounted(() => window.addEventListener("keydown", onKey));
onBeforeUnmount(() => window.removeEventListener("keydown", onKey));
</script>

<template>
  <a class="skip" href="#main">{{ t("To the content") }}</a>
  <div class="shell">
    <nav class="side" :aria-label="t('Rooms')">
      <RouterLink class="brand" to="/now"><img src="/icon.svg" alt="" width="34" height="34" />Open Pasture</RouterLink>
      <button type="button" class="room search" @click="searching = true">
        <el-icon><Search /></el-icon>{{ t("Search") }} <kbd aria-hidden="true">/</kbd>
      </button>
      <RouterLink
        v-for="room in rooms"
        :key="room.to"
        :to="room.to"
        class="room"
        :class="{ here: route.path.startsWith(room.to) }"
      >
        <el-icon><component :is="room.icon" /></el-icon>{{ room.name }}
        <span v-if="room.to === '/alerts' && alerts.waiting.length" class="count" :class="severity">{{
          alerts.waiting.length
        }}</span>
      </RouterLink>
      <StarredLinks />
      <div class="who">
        <RouterLink :to="helpFor(route.path)">{{ t("Help") }}</RouterLink>
        <span class="soft small">{{ session.person?.name }}</span>
        <el-button link @click="session.signOut()">{{ t("Sign out") }}</el-button>
      </div>
    </nav>

    <main id="main" tabindex="-1">
      <NoticeBars />
      <slot />
    </main>

    <nav class="bottom" :aria-label="t('Rooms')">
      <RouterLink
        v-for="room in rooms.slice(0, 4)"
        :key="room.to"
        :to="room.to"
        :class="{ here: route.path.startsWith(room.to) }"
      >
        <el-icon><component :is="room.icon" /></el-icon>{{ room.name }}
        <span v-if="room.to === '/alerts' && alerts.waiting.length" class="count" :class="severity">{{
          alerts.waiting.length
        }}</span>
      </RouterLink>
      <button type="button" :aria-expanded="more" @click="more = !more">
        <el-icon><Operation /></el-icon>{{ t("More") }}
      </button>
    </nav>
    <div v-if="more" class="sheet more">
      <button type="button" class="room search" @click="((more = false), (searching = true))">
        <el-icon><Search /></el-icon>{{ t("Search") }}
      </button>
      <RouterLink v-for="room in rooms.slice(4)" :key="room.to" :to="room.to" class="room">
        <el-icon><component :is="room.icon" /></el-icon>{{ room.name }}
      </RouterLink>
      <StarredLinks />
      <RouterLink :to="helpFor(route.path)" class="room">{{ t("Help") }}</RouterLink>
      <el-button link class="room" @click="session.signOut()">{{
        t("Sign out {name}", { name: session.person?.name })
      }}</el-button>
    </div>
  </div>
  <SearchDialog v-if="searching" @close="searching = false" />
  <span class="unseen" aria-live="polite"
    ><FenceMark v-if="alerts.waiting.length" :severity="severity" />
    {{ alerts.waiting.length ? t("{waiting} alerts wait", { waiting: alerts.waiting.length }) : "" }}</span
  >
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-columns: 208px minmax(0, 1fr);
  min-height: 100vh;
}
.side {
  position: sticky;
  top: 0;
  height: 100vh;
  padding: 1rem 0.75rem;
  border-right: 1px solid var(--line);
  background: var(--moss-soft);
  display: flex;
  flex-direction: column;
  gap: 0.15rem;
  overflow: auto;
}
.brand {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  font-weight: 680;
  font-size: 1.1rem;
  color: var(--moss);
  text-decoration: none;
  padding: 0 0.25rem 0.9rem;
}
.room {
  display: flex;
  align-items: center;
  gap: 0.65rem;
  padding: 0.55rem 0.6rem;
  border-radius: var(--radius);
  color: var(--ink);
  text-decoration: none;
}
.search {
  border: 0;
  background: none;
  font: inherit;
  text-align: start;
  cursor: pointer;
}
.search kbd {
  margin-left: auto;
  padding: 0 0.45em;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-size: 0.8rem;
}
.room:hover {
  background: var(--paper);
}
.here.room {
  background: var(--sheet);
  font-weight: 640;
  box-shadow: inset 3px 0 0 var(--heather);
}
.count {
  margin-left: auto;
  min-width: 1.5em;
  padding: 0 0.4em;
  text-align: center;
  border-radius: 1em;
  font-size: 0.85rem;
  font-weight: 640;
  background: var(--line);
}
.count.advisory {
  background: var(--advisory-fill);
}
.count.warning {
  background: var(--warning-fill);
}
.count.critical {
  background: var(--critical);
  color: var(--sheet);
}
.who {
  margin-top: auto;
  padding: 0.75rem 0.6rem 0;
  display: grid;
  justify-items: start;
}
.bottom,
.more {
  display: none;
}
main:focus {
  outline: none;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: 0.5rem;
  top: 0.5rem;
  z-index: 10;
  background: var(--sheet);
  padding: 0.5rem;
}
@media (max-width: 860px) {
  .shell {
    display: block;
  }
  .side {
    display: none;
  }
  .bottom {
    position: fixed;
    inset: auto 0 0 0;
    z-index: 20;
    display: grid;
    grid-template-columns: repeat(5, 1fr);
    background: var(--moss-soft);
    border-top: 1px solid var(--line);
    padding-bottom: env(safe-area-inset-bottom);
  }
  .bottom > * {
    position: relative;
    display: grid;
    justify-items: center;
    align-content: center;
    gap: 0.1rem;
    min-height: 56px;
    font: inherit;
    font-size: 0.78rem;
    color: var(--ink);
    text-decoration: none;
    background: none;
    border: 0;
  }
  .bottom .el-icon {
    font-size: 1.3rem;
  }
  .bottom .here {
    font-weight: 640;
    box-shadow: inset 0 3px 0 var(--heather);
  }
  .bottom .count {
    position: absolute;
    top: 4px;
    left: 54%;
    font-size: 0.72rem;
  }
  .more {
    display: grid;
    position: fixed;
    z-index: 21;
    right: 0.5rem;
    bottom: calc(64px + env(safe-area-inset-bottom));
    min-width: 13rem;
    max-height: 80vh;
    overflow: auto;
    box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
  }
  .more .room {
    min-height: 44px;
    justify-content: start;
  }
}
</style>
