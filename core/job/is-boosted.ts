/** Whether a car's engine is charged; where nobody has said so it is taken not to be. */
export function isBoosted({ induction }: { induction: string | null }): boolean {
  return induction !== null && induction !== 'none';
}

/** Whether its exhaust drives a compressor; undefined where nobody has said. */
export function isTurbocharged({ induction }: { induction: string | null }): boolean | undefined {
  return induction === null ? undefined : induction === 'turbo' || induction === 'both';
}
