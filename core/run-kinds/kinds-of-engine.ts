import { burnsFuel, type EngineKind } from '../engine/engine-kind.ts';

/** Kinds of run that only an engine has: a motor does not idle, starts silently and burns nothing. */
const ofEngines: readonly string[] = ['idle', 'cold-start', 'part-load', 'cruise'];

/** Whether a kind of run tells anything of such a car. */
export const suitsEngine = (runKind: string, engine: EngineKind | null): boolean =>
  burnsFuel(engine) || !ofEngines.includes(runKind);
