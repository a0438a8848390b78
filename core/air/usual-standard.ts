import type { EngineKind } from '../engine/engine-kind.ts';
import type { StandardId } from './correction.ts';

/** Standards made for one kind of ignition, and the one that takes their place for the other. */
const ofSpark: Partial<Record<StandardId, StandardId>> = { 'sae-j1349': 'iso-1585-ci', 'iso-1585-si': 'iso-1585-ci' };
const ofCompression: Partial<Record<StandardId, StandardId>> = { 'iso-1585-ci': 'iso-1585-si' };

/** The standard that a car's figures are usually corrected to: the one that is preferred, or its like for the engine at hand. */
export function usualStandard(preferred: StandardId, ignition: EngineKind | null | undefined): StandardId {
  if (ignition === 'compression') return ofSpark[preferred] ?? preferred;
  if (ignition === 'electric') return 'none';
  if (ignition === 'spark') return ofCompression[preferred] ?? preferred;
  return preferred;
}
