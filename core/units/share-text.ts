/** A share as percent with sensible digits: 0.31 %, 1 %. */
export function formatShare(share: number): string {
  const percent = 100 * share;
  return `${percent < 0.995 ? percent.toFixed(2) : percent.toFixed(percent < 9.95 ? 1 : 0).replace(/\.0$/, '')} %`;
}
