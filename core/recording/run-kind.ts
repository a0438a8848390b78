/** Kinds of runs (domain §2, §12). The first two and the last are sweeps. */
export type RunKind = 'power' | 'conditioning' | 'step' | 'part-load' | 'coast-down' | 'check';
