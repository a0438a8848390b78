/** Reads `3,000–5,600`, `3000-5600` or `3000 to 5600`. @returns undefined when it is no span */
export function readRpmRange(text: string): { fromRpm: number; toRpm: number } | undefined {
  const found = /^\s*(\d[\d, ]*)\s*(?:-|–|to)\s*(\d[\d, ]*?)\s*(?:rpm)?\s*$/.exec(text);
  if (!found) return undefined;
  const [fromRpm, toRpm] = found.slice(1).map((part) => Number(part.replace(/[, ]/g, ''))) as [number, number];
  return fromRpm > 0 && toRpm > fromRpm ? { fromRpm, toRpm } : undefined;
}
