import { create } from 'zustand';

/** What this page did that can be undone, the last one last. */
interface Acts {
  acts: string[];
}

export const useActs = create<Acts>(() => ({ acts: [] }));

/** So many steps back are kept. */
const kept = 50;

/** Takes down an act of this page's by the number that the server gave it. */
export function rememberAct(act: string | null): void {
  if (act) useActs.setState(({ acts }) => ({ acts: [...acts.filter((other) => other !== act), act].slice(-kept) }));
}

export function forgetAct(act: string): void {
  useActs.setState(({ acts }) => ({ acts: acts.filter((other) => other !== act) }));
}
