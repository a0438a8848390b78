/** What drives a car: an engine, by its ignition, or an electric motor, which burns nothing and takes no air. */
export type EngineKind = 'spark' | 'compression' | 'electric';

/** Whether it burns fuel; taken to where nobody said. */
export const burnsFuel = (kind: EngineKind | null | undefined): boolean => kind !== 'electric';

/** Whether it has plugs, and may knock; taken to where nobody said. */
export const sparks = (kind: EngineKind | null): boolean => kind === 'spark' || kind === null;
