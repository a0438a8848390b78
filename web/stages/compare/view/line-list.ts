import { isHidden, isWanted } from '../../../../core/scene/scene-view.ts';
import type { Setup } from '../../../../contract/job/records.ts';
import type { ChangeView } from './view.ts';
import type { CompareView } from './view-address.ts';

/** Whether a setup's line is drawn, and whether it could be taken away. */
export interface Line {
  letter: string;
  change: string;
  shown: boolean;
  /** The compared setup itself: a comparison without it shows nothing. */
  always: boolean;
}

type LineView = Pick<CompareView, 'test' | 'against' | 'baseline' | 'also' | 'hide'>;

/** Every setup that ran, in order, and whether its line is shown. */
export function linesOf(ran: readonly Setup[], view: LineView): Line[] {
  return ran.map((setup) => ({
    letter: setup.letter,
    change: setup.change,
    shown: isWanted(setup, view) && !isHidden(setup, view),
    always: setup.id === view.test.id,
  }));
}

/** The address once exactly these lines are shown beside the compared one. */
export function showing(
  lines: readonly Line[],
  usual: readonly string[],
  letters: readonly string[],
): Parameters<ChangeView>[0] {
  const wanted = lines.filter(({ letter, always }) => always || letters.includes(letter)).map(({ letter }) => letter);
  const also = wanted.filter((letter) => !usual.includes(letter));
  const hide = usual.filter((letter) => !wanted.includes(letter));
  return { also: also.join('.') || undefined, hide: hide.join('.') || undefined };
}
