/** An amount of data as people say it. */
export function bytes(amount: number): string {
  const units = ["B", "kB", "MB", "GB", "TB"];
  let value = amount;
  let unit = 0;
  while (value >= 1000 && unit < units.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${value >= 100 || unit === 0 ? Math.round(value) : value.toFixed(1)} ${units[unit]}`;
}

/** A number with thin spaces between thousands. */
export function count(amount: number): string {
  return Math.round(amount)
    .toString()
    .replace(/\B(?=(\d{3})+$)/g, "\u202f");
}

/** Days in the largest unit that says enough. */
export function span(days: number): string {
  if (days < 60) {
    return `${Math.round(days)} days`;
  }
  return days < 725 ? `${Math.round(days / 30.44)} months` : `${Math.round(days / 365.25)} years`;
}

export function keptFor(days: number): string {
  return days === 0 ? "for ever" : span(days);
}
