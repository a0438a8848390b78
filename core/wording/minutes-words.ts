/** A stretch of time as it is read from afar: `0:40 min`, `3 min`, `2 h 5 min`, `4 days`. */
export function minutesWords(seconds: number): string {
  if (seconds < 95) return `${Math.max(5, Math.round(seconds / 5) * 5)} s`;
  if (seconds < 3600) return `${Math.round(seconds / 60)} min`;
  if (seconds < 172_800) {
    const minutes = Math.floor((seconds % 3600) / 60);
    return `${Math.floor(seconds / 3600)} h${minutes > 0 ? ` ${minutes} min` : ''}`;
  }
  return `${Math.floor(seconds / 86_400)} days`;
}

/** A clock: `7:05 min` up to an hour, words beyond it. */
export function clockWords(seconds: number): string {
  if (seconds >= 3600) return minutesWords(seconds);
  return `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')} min`;
}
