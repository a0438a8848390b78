/** Kinds of runs (domain §2, §12, §13). */
export type RunKind = 'power' | 'conditioning' | 'step' | 'part-load' | FiguredKind | 'coast-down' | 'check';

/** Kinds with figures of their own, judged before and after by themselves. */
export type FiguredKind = 'idle' | 'cold-start' | 'transient' | 'cruise' | 'road-check';
