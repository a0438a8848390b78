import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import { useEffect, useId, useRef } from 'react';
import { create } from 'zustand';

/** A key of a screen: what it does, and how it is named. */
export interface ScreenKey {
  /**
   * Keys that do it, in the form of `mod+Z`. Left out where another part listens for them and they are only listed
   * here.
   */
  keys?: readonly string[];
  /** As it is read: `N`, `Ctrl Z`, `← →`. */
  shown: string;
  /** What it does, as a command. */
  says: string;
  run?: (event: KeyboardEvent) => void;
  options?: HotkeyItem[2];
  /** Left out of the commands: it makes sense only for somebody who is at the place already. */
  onlyHere?: boolean;
}

/** A command that the screen can do now. */
export interface Command {
  says: string;
  shown: string;
  run?: () => void;
}

interface Told {
  /** The keys that each part of the screen has told, by the part's own name. */
  parts: ReadonlyMap<string, readonly Command[]>;
}

export const useToldKeys = create<Told>(() => ({ parts: new Map() }));

const none: string[] = [];

/**
 * Keys of a screen, or of a part of it: they work while it is there, stand in the list of keys and, where they can be
 * run, among the commands.
 * @param everywhere also while a switch or a choice has the focus
 */
export function useKeys(keys: readonly ScreenKey[], everywhere = false): void {
  const items = keys.flatMap(({ keys: own = [], run, options }) =>
    run ? own.map((key): HotkeyItem => (options ? [key, run, options] : [key, run])) : [],
  );
  useHotkeys(items, everywhere ? none : undefined);
  const part = useId();
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  const said = JSON.stringify(
    keys.map(({ shown, says, run, onlyHere }) => [shown, says, run !== undefined && !onlyHere]),
  );
  useEffect(() => {
    const commands = (JSON.parse(said) as [string, string, boolean][]).map(([shown, says, canRun], at): Command => ({
      shown,
      says,
      ...(canRun && { run: () => latest.current[at]?.run?.(new KeyboardEvent('keydown')) }),
    }));
    useToldKeys.setState(({ parts }) => ({ parts: new Map(parts).set(part, commands) }));
    return () =>
      useToldKeys.setState(({ parts }) => ({ parts: new Map([...parts].filter(([other]) => other !== part)) }));
  }, [part, said]);
}

/** All keys of what is on the screen, each once. */
export function useAllKeys(): Command[] {
  const parts = useToldKeys((state) => state.parts);
  const all = [...parts.values()].flat();
  return all.filter(
    ({ shown, says }, at) => all.findIndex((other) => other.shown === shown && other.says === says) === at,
  );
}
