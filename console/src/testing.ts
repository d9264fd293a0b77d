import { flushPromises, mount, type VueWrapper } from "@vue/test-utils";
import { vi } from "vitest";
import { defineComponent, h, type Component } from "vue";
import { createMemoryHistory, createRouter } from "vue-router";

/** One call that the console made. */
export interface Call {
  method: string;
  path: string;
  body: unknown;
  headers: Record<string, string>;
}

/**
 * Stands in for the service: answers by "METHOD path" (relative to /api/v1/), and keeps what was asked. An answer may be a
 * function of the call; one that is a {@link Response} is given as it is.
 */
export function serviceStandIn(answers: Record<string, unknown>): Call[] {
  const calls: Call[] = [];
  vi.stubGlobal("fetch", async (address: string, init: RequestInit = {}) => {
    const path = address.replace(/^\/api\/v1\//, "");
    const method = init.method ?? "GET";
    const text = init.body as string | undefined;
    const headers = init.headers as Record<string, string>;
    const body = text && headers["Content-Type"] === "application/json" ? JSON.parse(text) : text;
    const call = { method, path, body, headers };
    calls.push(call);
    const key = `${method} ${path}`;
    if (!(key in answers)) {
      return problem(404, `the test has no answer for ${key}`);
    }
    const answer = answers[key];
    const value = typeof answer === "function" ? (answer as (of: Call) => unknown)(call) : answer;
    return value instanceof Response
      ? value
      : new Response(value === undefined ? null : JSON.stringify(value), { status: 200 });
  });
  return calls;
}

/** A refusal as the service gives it (RFC 9457). */
export function problem(status: number, detail: string, todo = "", type = "about:blank"): Response {
  return new Response(JSON.stringify({ status, detail, todo, type }), {
    status,
    headers: { "Content-Type": "application/problem+json" },
  });
}

/** A live stream that the test speaks for. */
export class StreamStandIn {
  static readonly CLOSED = 2;
  static opened: StreamStandIn[] = [];
  readyState = 1;
  onerror: () => void = () => undefined;
  private readonly listeners = new Map<string, ((event: { data: string }) => void)[]>();

  constructor(readonly address: string) {
    StreamStandIn.opened.push(this);
  }

  static install() {
    StreamStandIn.opened = [];
    vi.stubGlobal("EventSource", StreamStandIn);
  }

  static get newest(): StreamStandIn {
    return StreamStandIn.opened.at(-1) as StreamStandIn;
  }

  addEventListener(name: string, listener: (event: { data: string }) => void) {
    this.listeners.set(name, [...(this.listeners.get(name) ?? []), listener]);
  }

  close() {
    this.readyState = StreamStandIn.CLOSED;
  }

  tell(name: string, data: unknown = {}) {
    this.listeners.get(name)?.forEach((listener) => listener({ data: JSON.stringify(data) }));
  }

  breakOff(final: boolean) {
    this.readyState = final ? StreamStandIn.CLOSED : 0;
    this.onerror();
  }
}

/** Selects measure their drop-down, which there is none of without a screen; their options are shown in place. */
const SelectStandIn = defineComponent({
  name: "ElSelect",
  props: { modelValue: { type: [String, Number, Array, Object], default: undefined } },
  emits: ["update:modelValue"],
  setup:
    (_props, { slots }) =>
    () =>
      h("div", slots.default?.()),
});
const OptionStandIn = defineComponent({
  name: "ElOption",
  props: { label: { type: String, default: "" } },
  setup: (props) => () => h("span", props.label),
});

/** Menus that pop up measure too; what opens them is shown in place. */
const InPlace = defineComponent({
  name: "ElDropdown",
  setup:
    (_props, { slots }) =>
    () =>
      h("div", slots.default?.()),
});

/** Mounts a component as a part of the console: with stores, a router that goes nowhere, and dialogs in place. */
export async function mountIn(component: Component, props: Record<string, unknown> = {}, at?: string) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: "/:rest(.*)*", component: defineComponent({ render: () => h("div") }) }],
  });
  if (at) {
    await router.push(at);
  }
  const wrapper = mount(component, {
    props,
    attachTo: document.body,
    global: {
      plugins: [router],
      stubs: {
        teleport: true,
        transition: true,
        ElSelect: SelectStandIn,
        ElOption: OptionStandIn,
        ElDropdown: InPlace,
      },
    },
  });
  // A dialog shows its content a moment after it opens.
  await flushPromises();
  return wrapper;
}

/** The button that says so. */
export function button(wrapper: VueWrapper, name: string) {
  const found = wrapper.findAll("button").find((one) => one.text() === name);
  if (!found) {
    throw new Error(
      `no button says "${name}"; there are ${wrapper
        .findAll("button")
        .map((one) => one.text())
        .join(", ")}`,
    );
  }
  return found;
}
