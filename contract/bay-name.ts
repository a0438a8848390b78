/** A name for one bay more: the next number that no bay has. */
export function nextBayName(bays: readonly { name: string }[]): string {
  let number = bays.length + 1;
  while (bays.some(({ name }) => name.toLowerCase() === `bay ${number}`)) number++;
  return `Bay ${number}`;
}
