import { t } from "@/language";
import { api } from "@/api/http";
import type { Dashboard, Device, Starred, StarredPage } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, shallowRef } from "vue";

const NOTHING: Starred = { pages: [], start: null };
const mine = shallowRef<Starred>(NOTHING);
/** The names of what the console has no list of, by address. */
const names = shallowRef(new Map<string, string>());

/** The rooms that can open first. */
export const ROOMS = {
  now: t("Now"),
  places: t("Places"),
  alerts: t("Alerts"),
  dashboards: t("Dashboards"),
  fleet: t("Fleet"),
  records: t("Records"),
} as const;

/** The address of a page. */
export function addressOf(page: StarredPage): string {
  return {
    room: "/" + page.of,
    place: "/places/" + page.of,
    point: "/points/" + page.of,
    dashboard: "/dashboards/" + page.of,
    device: "/fleet/devices/" + page.of,
  }[page.kind];
}

const same = (a: StarredPage) => (b: StarredPage) => a.kind === b.kind && a.of === b.of;

export const starred = computed(() => mine.value);

/** Starred pages as they are called now, in the order in which they were starred; what is gone is left out. */
export const starredPages = computed(() =>
  mine.value.pages.flatMap((page) => {
    const name = nameOf(page);
    return name === undefined ? [] : [{ page, name, to: addressOf(page) }];
  }),
);

function nameOf(page: StarredPage): string | undefined {
  switch (page.kind) {
    case "room":
      return ROOMS[page.of as keyof typeof ROOMS];
    case "place":
      return usePlaces().byId.get(page.of)?.name;
    case "point": {
      const point = usePoints().byId.get(page.of);
      return point && `${point.path.at(-1) ?? ""}: ${point.name}`;
    }
    case "dashboard":
    case "device":
      return names.value.get(addressOf(page));
  }
}

/** What holds from now on; undefined when nobody is signed in. */
export async function useStarred(found: Starred | undefined) {
  mine.value = found ?? NOTHING;
  const unknown = mine.value.pages.filter((page) => ["dashboard", "device"].includes(page.kind));
  const asked = await Promise.all(
    unknown.map(async (page) => {
      const of = await api
        .get<Dashboard | Device>((page.kind === "device" ? "devices/" : "dashboards/") + page.of)
        .catch(() => undefined);
      return of ? [[addressOf(page), of.name] as const] : [];
    }),
  );
  names.value = new Map(asked.flat());
}

/** What is starred holds when this is done; names that have to be asked for come later, so that nothing waits for them. */
export async function loadStarred() {
  void useStarred(await api.get<Starred>("session/starred"));
}

export function isStarred(page: StarredPage): boolean {
  return mine.value.pages.some(same(page));
}

async function save(wish: Starred) {
  await useStarred(await api.put<Starred>("session/starred", wish));
}

/** Stars a page, or takes its star away. */
export async function star(page: StarredPage, on: boolean) {
  const others = mine.value.pages.filter((one) => !same(page)(one));
  await save({ ...mine.value, pages: on ? [...others, page] : others });
}

/** Which page opens first; null for Now. */
export async function startWith(page: StarredPage | null) {
  await save({ ...mine.value, start: page });
}

/** The address of the page that opens first. */
export function startAddress(): string {
  return mine.value.start ? addressOf(mine.value.start) : "/now";
}
