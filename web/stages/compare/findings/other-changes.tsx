import { extent } from 'd3-array';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { ratioOfRun } from '../../../units/use-own-units.tsx';
import type { ComparisonFigures } from '../../../../core/figures/pairs/comparison-figures.ts';
import { formatRpm } from '../../../../core/wording/figures.ts';
import button from '../../../ui/text-button.module.css';
import { laneWords } from '../../../../core/scene/lane-list.ts';
import type { CompareView } from '../view/view-address.ts';
import type { ChangeView } from '../view/view.ts';
import table from './gain-table.module.css';
import { otherChangeLines } from './other-changes-content.ts';
import classes from './other-changes.module.css';

/** Fuels whose ratios differ by less than this share are told by one. */
const alikeShare = 0.01;

/** The stoichiometric ratio of what all runs compared burnt; undefined where they burnt different fuels: then a mixture stays λ. */
function commonRatio(job: Job, { compared }: ComparisonFigures): number | undefined {
  const runs = job.runs.filter(({ id }) => Object.values(compared).flat().includes(id));
  const [least, most] = extent(runs.map((run) => ratioOfRun(job, run)));
  return least !== undefined && most !== undefined && most - least < alikeShare * most ? least : undefined;
}

/** Rows that stand there before more are asked for. */
const shownFirst = 6;

interface OtherChangesProps {
  job: Job;
  comparison: ComparisonFigures;
  view: CompareView;
  change: ChangeView;
}

/** How the logged channels differ between the sides at the same engine speeds, the largest in its own spread first. */
export function OtherChanges({ job, comparison, view, change }: OtherChangesProps) {
  const [all, setAll] = useState(false);
  const [first] = comparison.channels;
  if (!first) return null;
  const lines = otherChangeLines(comparison.channels, view.units, commonRatio(job, comparison));
  const rest = lines.length - shownFirst;
  const lanes: readonly string[] = view.lanes;
  const toggled = (channel: string) =>
    lanes.includes(channel) ? lanes.filter((lane) => lane !== channel) : [...lanes, channel];
  return (
    <section data-testid="other-changes">
      <h2 className="heading">What else changed</h2>
      <table
        className={`${table.table} ${classes.table}`}
        aria-label={`Logged channels, ${view.test.letter} against ${view.against.letter}`}
      >
        <thead>
          <tr>
            <td />
            <th scope="col">{view.againstRuns?.join(' ') ?? view.against.letter}</th>
            <th scope="col">{view.runs?.join(' ') ?? view.test.letter}</th>
            <th scope="col">difference</th>
          </tr>
        </thead>
        {(all ? lines : lines.slice(0, shownFirst)).map((line) => (
          <tbody key={line.channel} data-channel={line.channel}>
            <tr>
              <th scope="row">
                <button
                  className={classes.lane}
                  aria-pressed={lanes.includes(line.channel)}
                  title={lanes.includes(line.channel) ? 'Remove its lane' : 'Show it as a lane'}
                  onClick={() => change({ lanes: laneWords(toggled(line.channel)) })}
                >
                  {line.label}
                </button>
              </th>
              <td>{line.against}</td>
              <td>{line.test}</td>
              <td>
                <b>{line.difference}</b>
                <i>{line.halfWidth}</i>
              </td>
            </tr>
            <tr className={classes.greatest}>
              <td colSpan={4}>largest {line.greatest}</td>
            </tr>
          </tbody>
        ))}
      </table>
      {rest > 0 && (
        <button className={button.more} aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show ${rest} more`}
        </button>
      )}
      <p className={table.note}>
        Means of the logged channels from {formatRpm(first.fromRpm)} to {formatRpm(first.toRpm)} rpm, the largest in its
        own spread first. ± is a 95 % interval, each by itself
        {lines.every(({ halfWidth }) => halfWidth === '') && '; there is none without a repeated setup'}. Nothing is
        claimed of a channel.
      </p>
    </section>
  );
}
