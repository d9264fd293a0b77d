import { decimalSign } from "@/language";

/** A number with so many decimals, as it is written in the language that is spoken here. */
export function fixed(value: number, decimals: number): string {
  return value.toFixed(decimals).replace(".", decimalSign);
}

/** A number with so many decimals at most: 1.5 of 1.500. */
export function trimmed(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals))).replace(".", decimalSign);
}

/** A number on an axis: as long as it is, its thousands apart from 10 000 on. */
export function onAxis(value: number): string {
  return Math.abs(value) < 10_000 ? trimmed(value, 9) : String(value).replace(/\B(?=(\d{3})+$)/g, "\u202f");
}
