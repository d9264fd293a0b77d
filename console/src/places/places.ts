import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { LimitSet, Place } from "@/api/types";
import { useFetched } from "@/look/fetched";
import { defineStore } from "pinia";
import { computed, shallowRef } from "vue";

/** Sites, areas and assets, and the limit sets that hold for them. */
export const usePlaces = defineStore("places", () => {
  const places = shallowRef<Place[]>([]);
  const limits = shallowRef<LimitSet[]>([]);
  const byId = computed(() => new Map(places.value.map((place) => [place.id, place])));
  const limitsById = computed(() => new Map(limits.value.map((set) => [set.id, set])));

  const { loaded, problem, load, quietly } = useFetched(async () => {
    [places.value, limits.value] = await Promise.all([api.get<Place[]>("places"), api.get<LimitSet[]>("limits")]);
  });

  onChanged(["registry"], quietly);
  onLive("alert", quietly);
  onLive("resync", quietly);

  function children(parentId: string | null): Place[] {
    return places.value.filter(
      (place) => place.parentId === parentId || (parentId === null && !byId.value.has(place.parentId ?? "")),
    );
  }

  /** From the site down to the place itself. */
  function path(id: string | null): Place[] {
    const found: Place[] = [];
    for (
      let place = byId.value.get(id ?? "");
      place && found.length < 64;
      place = byId.value.get(place.parentId ?? "")
    ) {
      found.unshift(place);
    }
    return found;
  }

  /** The time zone of the site that a place lies in; undefined where it may not be seen. */
  function zoneOf(placeId: string | null | undefined): string | undefined {
    return path(placeId ?? null)[0]?.zone ?? undefined;
  }

  function may(right: "operate" | "edit" | "manage", placeId: string | null): boolean {
    const order = ["look", "operate", "edit", "manage"];
    return order.indexOf(byId.value.get(placeId ?? "")?.right ?? "") >= order.indexOf(right);
  }

  /** Places where the reader may make something. */
  const editable = computed(() => places.value.filter((place) => place.right === "edit" || place.right === "manage"));

  function label(place: Place): string {
    return path(place.id)
      .map((one) => one.name)
      .join(", ");
  }

  return { places, limits, loaded, problem, byId, limitsById, load, children, path, zoneOf, may, editable, label };
});
