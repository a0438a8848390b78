/** A curve that is about to be borrowed; its name may be empty where what it comes from has none. */
export interface DraftCurve {
  name: string;
  /** rpm, rising, and kW; empty for a peak alone. */
  points: [rpm: number, kw: number][];
  peakKw: number | null;
  errorKw: number | null;
}

/** What a source holds at the moment: curves, or what is still missing. */
export type Drafted = { curves: readonly DraftCurve[] } | { problem: string };

export interface SourceProps {
  onDraft: (drafted: Drafted) => void;
  /** What is missing, once somebody has tried to go on. */
  problem: string | undefined;
}
