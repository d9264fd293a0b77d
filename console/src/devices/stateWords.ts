import { t } from "@/language";

/** The states of gateways, devices, inlets and outlets as people say them. */
export const STATE_WORDS: Record<string, string> = {
  online: t("online"),
  silent: t("silent"),
  "silent-gateway": t("silent with its gateway"),
  "silent-inlet": t("silent with its inlet"),
  "silent-battery": t("silent, battery empty"),
  joined: t("joined, no data yet"),
  "never-heard": t("never heard"),
  up: t("up"),
  down: t("down"),
  connecting: t("connecting"),
  degraded: t("up in part"),
  paused: t("paused"),
};
