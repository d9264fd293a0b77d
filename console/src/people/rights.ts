import type { Right } from "@/api/types";

/** What a person may do, as it goes on after their name. */
export const RIGHTS: Record<Right, string> = {
  look: "may look at",
  operate: "may operate",
  edit: "may edit",
  manage: "manages",
};

/** The same to choose from. */
export const RIGHT_CHOICES: [Right, string][] = [
  ["look", "look"],
  ["operate", "operate: also acknowledge alerts, write notes"],
  ["edit", "edit: also devices, points, rules"],
  ["manage", "manage: also invite others"],
];
