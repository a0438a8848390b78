/** A figure with no more digits than it can mean. */
export function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}

/** Power in kW to 0.1 W; null where there is none to tell. */
export function kw(value: number): number | null {
  return Number.isFinite(value) ? round(value, 4) : null;
}
