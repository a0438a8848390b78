/** One letter each of the first and the last name. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/);
  return [words[0], words.length > 1 ? words.at(-1) : undefined]
    .map((word) => word?.charAt(0).toUpperCase() ?? '')
    .join('');
}
