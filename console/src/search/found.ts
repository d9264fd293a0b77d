import { t } from "@/language";
import type { Alert, Found } from "@/api/types";

/** What each kind of thing is called, and the page that it is seen on. */
const KINDS: Record<string, { title: string; page: (id: string) => string }> = {
  site: { title: t("Site"), page: (id) => "/places/" + id },
  area: { title: t("Area"), page: (id) => "/places/" + id },
  asset: { title: t("Asset"), page: (id) => "/places/" + id },
  point: { title: t("Point"), page: (id) => "/points/" + id },
  device: { title: t("Device"), page: (id) => "/fleet/devices/" + id },
  gateway: { title: t("Gateway"), page: (id) => "/fleet/gateways/" + id },
  inlet: { title: t("Inlet"), page: (id) => "/fleet/inlets/" + id },
  outlet: { title: t("Outlet"), page: () => "/fleet/outlets" },
  rule: { title: t("Alert rule"), page: () => "/alerts?tab=rules" },
  dashboard: { title: t("Dashboard"), page: (id) => "/dashboards/" + id },
  "limit-set": { title: t("Limit set"), page: (id) => "/limits#" + id },
  "device-model": { title: t("Device model"), page: () => "/fleet/models" },
  person: { title: t("Person"), page: () => "/people" },
};

/** Pages that people look for by name. */
const PAGES: [title: string, words: string, to: string][] = [
  [t("Now"), t("overview start"), "/now"],
  [t("Alert history"), "events", "/alerts?tab=history"],
  [t("Alert rules"), "", "/alerts?tab=rules"],
  [t("Incoming frames"), t("raw messages"), "/fleet/frames"],
  [t("Workbench"), t("decoder script test"), "/fleet/workbench"],
  [t("Records and backups"), t("disk space retention"), "/records"],
  [t("Audit trail"), t("changes who"), "/people/trail"],
  [t("Compare"), t("compare points week before difference"), "/records/compare"],
  [
    t("Appearance and units"),
    t("settings theme dark colours type size language metric imperial fahrenheit start page first"),
    "/settings/appearance",
  ],
  [t("Password and sign-ins"), t("settings account sessions second factor"), "/settings/account"],
  [t("API tokens"), t("settings programs"), "/settings/tokens"],
  [t("Data health"), t("fleet gaps stuck spikes jumps sensor quality"), "/fleet/health"],
  [t("How you are notified"), t("settings notices quiet hours away phone text message"), "/settings/notices"],
  [t("Text messages"), t("settings notices gateway sms phone"), "/settings/text"],
  [t("Life sign"), t("settings dead man watchdog"), "/settings/life-sign"],
  [t("Mail server"), t("settings notices smtp"), "/settings/mail"],
  [t("Radio band"), t("settings region lorawan"), "/settings/radio"],
  [t("About"), t("settings version licence"), "/settings/about"],
];

const MOST_ALERTS = 10;

export interface Hit {
  key: string;
  title: string;
  what: string;
  where: string;
  to: string;
}

export function hitOf(found: Found): Hit {
  const kind = KINDS[found.kind];
  return {
    key: found.kind + found.id,
    title: found.name,
    what: kind?.title ?? found.kind,
    where: found.where,
    to: kind?.page(found.id) ?? "/places",
  };
}

/** Whether each word that was typed begins a word of a text. */
function fits(text: string, own: string): boolean {
  const words = own.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  return text
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((word) => words.some((one) => one.startsWith(word)));
}

/** Open alerts that fit, and the way to those that are over. */
export function alertsFor(text: string, open: Alert[]): Hit[] {
  const typed = text.trim();
  const found = open
    .filter((alert) => fits(typed, `${alert.summary} ${alert.path.join(" ")} ${alert.severity}`))
    .slice(0, MOST_ALERTS)
    .map((alert) => ({
      key: "alert" + alert.id,
      title: alert.summary,
      what: t("Alert, {severity}", { severity: alert.severity }),
      where: alert.path.join(", "),
      to: "/alerts/" + alert.id,
    }));
  const history = {
    key: "history",
    title: t("“{typed}” in the alert history", { typed }),
    what: t("Alerts"),
    where: "",
    to: `/alerts?tab=history&text=${encodeURIComponent(typed)}`,
  };
  return typed ? [...found, history] : [];
}

/** Pages of the console that fit: each word that was typed begins a word of the title or of what it is about. */
export function pagesFor(text: string): Hit[] {
  return text.trim()
    ? PAGES.filter(([title, words]) => fits(text, `${title} ${words}`)).map(([title, , to]) => ({
        key: to,
        title,
        what: t("Page"),
        where: "",
        to,
      }))
    : [];
}
