import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Latest, Point, PointSelection } from "@/api/types";
import { usePlaces } from "@/places/places";
import { useFetched } from "@/look/fetched";
import { worstJudged } from "@/look/severity";
import { defineStore } from "pinia";
import { computed, reactive } from "vue";

/** All points that may be seen, with their newest readings kept current by the live stream. */
export const usePoints = defineStore("points", () => {
  const byId = reactive(new Map<string, Point>());
  const places = usePlaces();

  const { loaded, problem, load, quietly } = useFetched(async () => {
    const found = await api.get<Point[]>("points");
    const kept = new Set(found.map((point) => point.id));
    [...byId.keys()].filter((id) => !kept.has(id)).forEach((id) => byId.delete(id));
    found.forEach((point) => byId.set(point.id, point));
  });

  onLive<{ pointId: string; latest: Latest }>("reading", ({ pointId, latest }) => {
    const point = byId.get(pointId);
    if (point && (!point.latest || latest.time >= point.latest.time)) {
      point.latest = latest;
    }
  });
  onChanged(["registry"], quietly);
  onLive("resync", quietly);

  const all = computed(() => [...byId.values()]);
  const ofPlace = (placeId: string) => all.value.filter((point) => point.placeId === placeId);

  /** Points of a place and all below it. */
  function below(placeId: string): Point[] {
    return all.value.filter((point) => places.path(point.placeId).some((place) => place.id === placeId));
  }

  /** The points that a selection has now. */
  function selected(of: PointSelection): Point[] {
    return below(of.placeId).filter(
      (point) =>
        (!of.quantity || point.quantity === of.quantity) &&
        (!of.tag || point.tags.some((tag) => tag.toLowerCase() === of.tag?.toLowerCase())) &&
        (!of.assetKind || places.byId.get(point.placeId)?.assetKind?.toLowerCase() === of.assetKind.toLowerCase()),
    );
  }

  /** Named points first, then those of a selection; each once. */
  function shown(of: { pointIds: string[]; selection: PointSelection | null }): Point[] {
    const named = of.pointIds.flatMap((id) => byId.get(id) ?? []);
    return [...new Set([...named, ...(of.selection ? selected(of.selection) : [])])];
  }

  /** The worst severity of a place, from readings as they are now. */
  const severities = computed(() => {
    const found = new Map<string, Point[]>();
    for (const point of all.value) {
      for (const place of places.path(point.placeId)) {
        found.set(place.id, [...(found.get(place.id) ?? []), point]);
      }
    }
    return new Map([...found].map(([id, points]) => [id, worstJudged(points.map((point) => point.latest?.severity))]));
  });

  return { byId, all, loaded, problem, load, ofPlace, below, selected, shown, severities };
});
