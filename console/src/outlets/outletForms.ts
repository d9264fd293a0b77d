import type { Destination, Outlet } from "@/api/types";

/** What a form is filled with: as an outlet is, or as the commonest is. */
export function startOf(outlet?: Outlet) {
  const to = outlet?.destination;
  return {
    name: outlet?.name ?? "",
    kind: (to?.kind ?? "http") as Destination["kind"],
    url: to?.kind === "http" ? to.url : "https://",
    allowPrivate: to?.kind === "http" ? Boolean(to.allowPrivate) : false,
    broker: to?.kind === "mqtt" ? to.url : "mqtt://",
    username: to?.kind === "mqtt" ? (to.username ?? "") : "",
    topic: to && "topic" in to ? to.topic : "site/{point}",
    retained: to && "retained" in to ? Boolean(to.retained) : true,
    placeIds: outlet?.placeIds ?? ([] as string[]),
    quantities: outlet?.quantities ?? ([] as string[]),
    readings: outlet?.readings ?? true,
    alerts: outlet?.alerts ?? true,
    form: outlet?.form ?? ("json" as Outlet["form"]),
    secretName: to?.kind === "mqtt" ? "password" : "signing-key",
    secret: "",
    lifeSignMinutes: outlet?.lifeSignMinutes ?? 0,
  };
}
export type OutletDraft = ReturnType<typeof startOf>;

export function destinationOf(draft: OutletDraft): Destination {
  switch (draft.kind) {
    case "http":
      return { kind: "http", url: draft.url, allowPrivate: draft.allowPrivate };
    case "mqtt":
      return {
        kind: "mqtt",
        url: draft.broker,
        topic: draft.topic,
        username: draft.username || null,
        retained: draft.retained,
      };
    case "own-broker":
      return { kind: "own-broker", topic: draft.topic, retained: draft.retained };
  }
}

/** What the service is asked for. Secrets that are not entered stay as they are. */
export function requestOf(draft: OutletDraft, siteId: string) {
  const secretName = draft.kind === "mqtt" ? "password" : draft.secretName;
  return {
    name: draft.name,
    siteId,
    destination: destinationOf(draft),
    placeIds: draft.placeIds.length ? draft.placeIds : null,
    quantities: draft.quantities.length ? draft.quantities : null,
    readings: draft.readings,
    alerts: draft.alerts,
    form: draft.form,
    lifeSignMinutes: draft.lifeSignMinutes || null,
    secrets: draft.secret && draft.kind !== "own-broker" ? { [secretName]: draft.secret } : null,
  };
}
