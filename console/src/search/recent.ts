import { t } from "@/language";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import type { Hit } from "./found";

const KEY = "opened";
const MOST = 8;
const PAGE = /^\/(places|points)\/([\w-]+)$/;

function opened(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? "[]");
    return Array.isArray(kept) ? kept.filter((one) => typeof one === "string") : [];
  } catch {
    return [];
  }
}

/** Remembers, in this browser, that the page of a place or a point was opened. */
export function remember(path: string) {
  if (PAGE.test(path)) {
    localStorage.setItem(KEY, JSON.stringify([path, ...opened().filter((one) => one !== path)].slice(0, MOST)));
  }
}

/** What was opened last, the newest first, as it is called now; what may not be seen any more is left out. */
export function lately(): Hit[] {
  const places = usePlaces();
  const points = usePoints();
  return opened().flatMap((to) => {
    const [, kind, id = ""] = PAGE.exec(to) ?? [];
    const found = kind === "places" ? places.byId.get(id) : points.byId.get(id);
    const within = kind === "places" ? places.byId.get(id)?.parentId : points.byId.get(id)?.placeId;
    return found
      ? [
          {
            key: to,
            title: found.name,
            what: kind === "places" ? t("Place") : t("Point"),
            where: places
              .path(within ?? null)
              .map((one) => one.name)
              .join(", "),
            to,
          },
        ]
      : [];
  });
}
