import type { Device, Gateway } from "@/api/types";

/** Silent devices with a cause in common, and where to look. */
export interface SilentGroup {
  cause: string;
  todo: string;
  devices: Device[];
}

/** Groups silent devices by cause, the gateway first: a sensor is often blamed when its gateway is gone. */
export function silentByCause(devices: Device[], gateways: Gateway[]): SilentGroup[] {
  const down = gateways.filter((gateway) => gateway.state !== "online").map((gateway) => gateway.name);
  const groups: SilentGroup[] = [
    {
      cause: down.length === 1 ? `Gateway ${down[0]} is silent` : "Their gateways are silent",
      todo: "Look at the gateway first: power, network, then the sensors.",
      devices: devices.filter((device) => device.state === "silent-gateway"),
    },
    {
      cause: "Their inlets are not receiving",
      todo: "Look at the inlet first: is it paused, is the bridge plugged in, does the port answer?",
      devices: devices.filter((device) => device.state === "silent-inlet"),
    },
    {
      cause: "Their batteries were nearly empty",
      todo: "Change the batteries; most joining devices come back by themselves.",
      devices: devices.filter((device) => device.state === "silent-battery"),
    },
    {
      cause: "Silent, though their gateway or inlet is there",
      todo: "Distance, something in the way, or the sensor itself.",
      devices: devices.filter((device) => device.state === "silent"),
    },
    {
      cause: "Heard, but refused",
      todo: "The keys on the device and the ones entered here differ, or the device was registered otherwise.",
      devices: devices.filter((device) => device.state === "never-heard" && device.problem),
    },
    {
      cause: "Never heard",
      todo: "Is it switched on, in reach, on the right band? Does it join?",
      devices: devices.filter((device) => device.state === "never-heard" && !device.problem),
    },
  ];
  return groups.filter((group) => group.devices.length > 0);
}

function count(n: number, one: string, many: string): string {
  return n === 1 ? `one ${one}` : `${n} ${many}`;
}

/** How things are, in a sentence; all is well only where everything is known. */
export function sentence(
  complete: boolean,
  waiting: number,
  open: number,
  silent: number,
  stale: number,
  outside = 0,
): string {
  const parts = [
    waiting
      ? `${count(waiting, "alert waits", "alerts wait")} for somebody`
      : open
        ? `${count(open, "alert is", "alerts are")} being looked after`
        : outside
          ? `${count(outside, "value is", "values are")} outside of the normal zone`
          : "",
    silent
      ? `${count(silent, "device does", "devices do")} not report`
      : stale
        ? `${count(stale, "value is", "values are")} stale`
        : "",
  ].filter(Boolean);
  const text = parts.join(", ");
  return text ? text[0]?.toUpperCase() + text.slice(1) : complete ? "All is well" : "Now";
}
