import type { Alert, Found } from "@/api/types";

/** What each kind of thing is called, and the page that it is seen on. */
const KINDS: Record<string, { title: string; page: (id: string) => string }> = {
  site: { title: "Site", page: (id) => "/places/" + id },
  area: { title: "Area", page: (id) => "/places/" + id },
  asset: { title: "Asset", page: (id) => "/places/" + id },
  point: { title: "Point", page: (id) => "/points/" + id },
  device: { title: "Device", page: (id) => "/fleet/devices/" + id },
  gateway: { title: "Gateway", page: (id) => "/fleet/gateways/" + id },
  inlet: { title: "Inlet", page: (id) => "/fleet/inlets/" + id },
  outlet: { title: "Outlet", page: () => "/fleet/outlets" },
  rule: { title: "Alert rule", page: () => "/alerts?tab=rules" },
  dashboard: { title: "Dashboard", page: (id) => "/dashboards/" + id },
  "limit-set": { title: "Limit set", page: (id) => "/limits#" + id },
  "device-model": { title: "Device model", page: () => "/fleet/models" },
  person: { title: "Person", page: () => "/people" },
};

/** Pages that people look for by name. */
const PAGES: [title: string, words: string, to: string][] = [
  ["Now", "overview start", "/now"],
  ["Alert history", "events", "/alerts?tab=history"],
  ["Alert rules", "", "/alerts?tab=rules"],
  ["Incoming frames", "raw messages", "/fleet/frames"],
  ["Workbench", "decoder script test", "/fleet/workbench"],
  ["Records and backups", "disk space retention", "/records"],
  ["Audit trail", "changes who", "/people/trail"],
  ["Compare", "compare points week before difference", "/records/compare"],
  [
    "Appearance and units",
    "settings theme dark colours type size metric imperial fahrenheit start page first",
    "/settings/appearance",
  ],
  ["Password and sign-ins", "settings account sessions second factor", "/settings/account"],
  ["API tokens", "settings programs", "/settings/tokens"],
  ["Data health", "fleet gaps stuck spikes jumps sensor quality", "/fleet/health"],
  ["How you are notified", "settings notices quiet hours away phone text message", "/settings/notices"],
  ["Text messages", "settings notices gateway sms phone", "/settings/text"],
  ["Life sign", "settings dead man watchdog", "/settings/life-sign"],
  ["Mail server", "settings notices smtp", "/settings/mail"],
  ["Radio band", "settings region lorawan", "/settings/radio"],
  ["About", "settings version licence", "/settings/about"],
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
      what: `Alert, ${alert.severity}`,
      where: alert.path.join(", "),
      to: "/alerts/" + alert.id,
    }));
  const history = {
    key: "history",
    title: `“${typed}” in the alert history`,
    what: "Alerts",
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
        what: "Page",
        where: "",
        to,
      }))
    : [];
}
