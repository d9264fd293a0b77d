import { t } from "@/language";
/** The pages of the guide, in the order in which they are read, and the rooms whose help they are. */
export const PAGES = [
  { name: "first-day", title: t("First day"), rooms: ["/now", "/places", "/first-visit"] },
  { name: "devices", title: t("Devices"), rooms: ["/fleet"] },
  { name: "limits", title: t("Limits"), rooms: ["/limits", "/points"] },
  { name: "rules", title: t("Rules and alerts"), rooms: ["/alerts"] },
  { name: "dashboards", title: t("Dashboards, plans and reports"), rooms: ["/dashboards", "/records/compare"] },
  { name: "panels", title: t("Kinds of panels"), rooms: [] },
  { name: "sharing", title: t("Sharing"), rooms: ["/people", "/packs"] },
  { name: "phone", title: t("Phone, https, and no network"), rooms: ["/settings"] },
  { name: "backup", title: t("Records and backup"), rooms: ["/records"] },
  { name: "troubleshooting", title: t("What to do when …"), rooms: ["/guide"] },
] as const;

/** The address of the page that helps with a room; the nearest one wins. */
export function helpFor(path: string): string {
  const all = PAGES.flatMap((page) => page.rooms.map((room: string) => ({ room, name: page.name })));
  const near = all
    .filter(({ room }) => path === room || path.startsWith(room + "/"))
    .sort((one, other) => other.room.length - one.room.length)[0];
  return "/guide/" + (near?.name ?? PAGES[0].name);
}
