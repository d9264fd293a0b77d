import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import { useFetched } from "@/look/fetched";
import { rank } from "@/look/severity";
import { defineStore } from "pinia";
import { computed, reactive } from "vue";

/** Alerts that are not closed, kept current by the live stream. */
export const useAlerts = defineStore("alerts", () => {
  const byId = reactive(new Map<string, Alert>());
  const { loaded, problem, load, quietly } = useFetched(async () => {
    const found = await api.get<Alert[]>("alerts");
    byId.clear();
    found.forEach((alert) => byId.set(alert.id, alert));
  });

  function take(alert: Alert) {
    if (alert.closedAt === null) {
      byId.set(alert.id, alert);
    } else {
      byId.delete(alert.id);
    }
  }

  onLive<Alert>("alert", take);
  onLive("resync", quietly);

  const all = computed(() =>
    [...byId.values()].sort((a, b) => rank(b.severity) - rank(a.severity) || b.raisedAt.localeCompare(a.raisedAt)),
  );
  const isShelved = (alert: Alert) => alert.state === "shelved" || alert.state === "out-of-service";
  /** Those that ask for something; what is shelved is listed apart. */
  const open = computed(() => all.value.filter((alert) => !isShelved(alert)));
  const shelved = computed(() => all.value.filter(isShelved));
  const waiting = computed(() => open.value.filter((alert) => alert.acknowledgedAt === null));

  return { byId, open, shelved, waiting, loaded, problem, load, take };
});
