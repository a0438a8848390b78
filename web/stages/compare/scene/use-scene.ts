import { useMemo, useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';
import { compareScene } from '../../../../core/scene/compare-scene.ts';
import type { SceneContent } from '../../../../core/scene/scene.ts';
import { shownSetups } from '../../../../core/scene/shown-setups.ts';
import { useLoggedSides } from './use-logged-sides.ts';

/**
 * What the lanes show of some figures; undefined where no line is to be shown.
 * Computed once for all that draw it, and again only when figures, lines or
 * units change: not while a crosshair moves or another part is looked at.
 *
 * @param guest another job that a setup is laid beside from
 */
export function useScene(
  job: Job,
  guest: Job | undefined,
  figures: JobFigures | undefined,
  view: CompareView,
): SceneContent | undefined {
  const drawn = useDrawn(view);
  const shown = useMemo(() => (figures ? shownSetups(job, figures, drawn) : []), [job, figures, drawn]);
  const sides = useLoggedSides(job, guest, drawn, shown);
  return useMemo(() => figures && compareScene({ view: drawn, shown, figures }, sides), [drawn, shown, figures, sides]);
}

/** A view that stays the same while only the crosshair moves or another range is looked at. */
function useDrawn(view: CompareView): CompareView {
  const [drawn, setDrawn] = useState(view);
  const lines = (asked: CompareView) => JSON.stringify({ ...asked, zoom: undefined, atRpm: undefined });
  if (drawn === view || lines(drawn) === lines(view)) return drawn;
  setDrawn(view);
  return view;
}
