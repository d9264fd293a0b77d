import { t } from "@/language";
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
      cause: down.length === 1 ? t("Gateway {name} is silent", { name: down[0] }) : t("Their gateways are silent"),
      todo: t("Look at the gateway first: power, network, then the sensors."),
      devices: devices.filter((device) => device.state === "silent-gateway"),
    },
    {
      cause: t("Their inlets are not receiving"),
      todo: t("Look at the inlet first: is it paused, is the bridge plugged in, does the port answer?"),
      devices: devices.filter((device) => device.state === "silent-inlet"),
    },
    {
      cause: t("Their batteries were nearly empty"),
      todo: t("Change the batteries; most joining devices come back by themselves."),
      devices: devices.filter((device) => device.state === "silent-battery"),
    },
    {
      cause: t("Silent, though their gateway or inlet is there"),
      todo: t("Distance, something in the way, or the sensor itself."),
      devices: devices.filter((device) => device.state === "silent"),
    },
    {
      cause: t("Heard, but refused"),
      todo: t("The keys on the device and the ones entered here differ, or the device was registered otherwise."),
      devices: devices.filter((device) => device.state === "never-heard" && device.problem),
    },
    {
      cause: t("Never heard"),
      todo: t("Is it switched on, in reach, on the right band? Does it join?"),
      devices: devices.filter((device) => device.state === "never-heard" && !device.problem),
    },
  ];
  return groups.filter((group) => group.devices.length > 0);
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
      ? t("one alert waits for somebody | {n} alerts wait for somebody", { n: waiting })
      : open
        ? t("one alert is being looked after | {n} alerts are being looked after", { n: open })
        : outside
          ? t("one value is outside of the normal zone | {n} values are outside of the normal zone", { n: outside })
          : "",
    silent
      ? t("one device does not report | {n} devices do not report", { n: silent })
      : stale
        ? t("one value is stale | {n} values are stale", { n: stale })
        : "",
  ].filter(Boolean);
  const text = parts.join(", ");
  return text ? text[0]?.toUpperCase() + text.slice(1) : complete ? t("All is well") : t("Now");
}
