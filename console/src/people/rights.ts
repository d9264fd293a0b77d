import { t } from "@/language";
import type { Right } from "@/api/types";

/** What a person may do, as it goes on after their name. */
export const RIGHTS: Record<Right, string> = {
  look: t("may look at"),
  operate: t("may operate"),
  edit: t("may edit"),
  manage: t("manages"),
};

/** The same to choose from. */
export const RIGHT_CHOICES: [Right, string][] = [
  ["look", t("look")],
  ["operate", t("operate: also acknowledge alerts, write notes")],
  ["edit", t("edit: also devices, points, rules")],
  ["manage", t("manage: also invite others")],
];
