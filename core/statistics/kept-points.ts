/** So many points are kept before all are forgotten. */
const mostPoints = 2000;

/** Points of a distribution found before: the same few are asked for again and again, and each takes a search. */
export function keptPoints(): (key: string, find: () => number) => number {
  const points = new Map<string, number>();
  return (key, find) => {
    const kept = points.get(key);
    if (kept !== undefined) return kept;
    const point = find();
    if (points.size >= mostPoints) points.clear();
    points.set(key, point);
    return point;
  };
}
