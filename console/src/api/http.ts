import { said, t } from "@/language";
import { answered } from "./offline";

/** A refusal by the service: a sentence, and what to do (RFC 9457). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly todo: string,
    /** What kind of problem it is: "second-factor". */
    readonly kind = "",
  ) {
    super(message);
  }
}

/** Called when the service says that nobody is signed in. */
let onSignedOut: () => void = () => undefined;
export function whenSignedOut(action: () => void) {
  onSignedOut = action;
}

async function send(
  method: string,
  path: string,
  body?: unknown,
  type = "application/json",
  more: Record<string, string> = {},
): Promise<Response> {
  let response: Response;
  try {
    response = await fetch("/api/v1/" + path, {
      method,
      headers: {
        Accept: "application/json",
        "X-Pasture-Console": "1",
        ...(body === undefined ? {} : { "Content-Type": type }),
        ...more,
      },
      ...(body === undefined ? {} : { body: type === "application/json" ? JSON.stringify(body) : (body as BodyInit) }),
    });
  } catch {
    throw new Refusal(
      0,
      t("The service cannot be reached."),
      t("Check the network and that the service is running; this page tries again by itself."),
    );
  }
  answered(response);
  if (response.ok) {
    return response;
  }
  const problem = await response.json().catch(() => ({}));
  if (response.status === 401 && path !== "session") {
    onSignedOut();
  }
  throw new Refusal(
    response.status,
    problem.detail ?? t("The service answered with status {status}.", { status: response.status }),
    problem.todo ?? "",
    String(problem.type ?? "").replace(/^.*[/:]/, ""),
  );
}

async function json<T>(response: Promise<Response>): Promise<T> {
  const text = await (await response).text();
  return (text ? JSON.parse(text) : undefined) as T;
}

/** The service's API, relative to /api/v1/. Every call throws a {@link Refusal} when it cannot be done. */
export const api = {
  get: <T>(path: string) => json<T>(send("GET", path)),
  post: <T>(path: string, body: unknown = {}) => json<T>(send("POST", path, body)),
  /** With a tag it is refused if the thing has been changed since the tag was given (RFC 9110, 13.1.1). */
  put: <T>(path: string, body: unknown, tag?: string) =>
    json<T>(send("PUT", path, body, "application/json", tag ? { "If-Match": tag } : {})),
  /** A thing as it is registered now, with the tag of that; without one if it has none. */
  tagged: async <T>(path: string): Promise<{ thing: T; tag?: string }> => {
    const response = await send("GET", path);
    return { thing: await response.json(), tag: response.headers.get("ETag") ?? undefined };
  },
  blob: async (path: string) => (await send("GET", path, undefined, undefined, { Accept: "*/*" })).blob(),
  /** A file, with the time at which it changed last (as it is said, by HTTP). */
  file: async (path: string): Promise<{ content: Blob; changedAt: string | undefined }> => {
    const response = await send("GET", path, undefined, undefined, { Accept: "*/*" });
    const changed = response.headers.get("Last-Modified");
    return { content: await response.blob(), changedAt: changed ? new Date(changed).toISOString() : undefined };
  },
  text: async (path: string) => (await send("GET", path)).text(),
  remove: (path: string) => json<void>(send("DELETE", path)),
  picture: <T>(path: string, content: Blob) =>
    json<T>(send("PUT", path, content, content.type || "application/octet-stream")),
  putCsv: <T>(path: string, text: string) => json<T>(send("PUT", path, text, "text/csv")),
  csv: <T>(path: string, text: string) => json<T>(send("POST", path, text, "text/csv")),
};

/** What went wrong, in words for the page. */
export function words(error: unknown): string {
  return error instanceof Refusal
    ? `${said(error.message)} ${said(error.todo)}`.trim()
    : error instanceof Error
      ? error.message
      : String(error);
}
