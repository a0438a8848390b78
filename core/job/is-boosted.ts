/** Whether a car's engine is charged; where nobody has said so it is taken not to be. */
export function isBoosted({ induction }: { induction: string | null }): boolean {
  return induction !== null && induction !== 'none';
}
