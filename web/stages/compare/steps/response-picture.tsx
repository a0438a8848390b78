import { SegmentedControl } from '@mantine/core';
import type { Job } from '../../../../contract/job/records.ts';
import { brokenWords } from '../../../../core/limits/broken-words.ts';
import { levelWords } from '../../../../core/response/level-words.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { valueAt } from '../../../../core/response/parabola.ts';
import type { Response } from '../../../../core/response/response.ts';
import { convert } from '../../../../core/units/units.ts';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { niceRange } from '../../../../core/scene/nice-range.ts';
import { formatPower, formatRpm, powerDifference, scaleNote } from '../../../../core/wording/figures.ts';
import { ArrivedLevel } from './arrived-level.tsx';
import classes from './response-picture.module.css';
import steps from './steps-picture.module.css';
import { SurfacePicture } from './surface-picture.tsx';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface ResponsePictureProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

/** Runs against one numeric item: the curve, its best with an interval, and the gentlest setting that keeps almost all of it. */
export function ResponsePicture({ job, figures, view, change }: ResponsePictureProps) {
  const { write } = useOwnUnits();
  const { response, varied = [], planes = [], plane } = figures;
  const choices = [
    ...varied.map((item) => ({ value: item.key, label: `${item.label}, ${item.levels} levels` })),
    ...planes.map(({ key, label, points }) => ({ value: key, label: `${label}, ${points} points` })),
  ];
  // Two items together are looked at where somebody asks for them, or where neither was moved alone.
  if (plane && (view.item === plane.plane.key || !response))
    return (
      <section className={steps.picture} aria-label="Response" tabIndex={0}>
        <header>
          <h2>
            Power over {plane.plane.across.label} and {plane.plane.down.label}
          </h2>
          {choices.length > 1 && (
            <SegmentedControl
              aria-label="Which item"
              data={choices}
              value={plane.plane.key}
              onChange={(item) => change({ item })}
            />
          )}
        </header>
        <SurfacePicture job={job} figures={plane} />
      </section>
    );
  if (!response)
    return (
      <div className={steps.none}>
        <h2>Nothing to respond to yet</h2>
        <p>
          When setups differ from one another in one numeric item alone (ignition, boost, λ, a cam), power is laid over
          its levels here. Three levels make a curve.
        </p>
      </div>
    );
  const { found, label, unit, unknown, item } = response;
  return (
    <section className={steps.picture} aria-label="Response" tabIndex={0}>
      <header>
        <h2>Power over {label}</h2>
        {choices.length > 1 && (
          <SegmentedControl
            aria-label="Which item"
            data={choices}
            value={response.key}
            onChange={(item) => change({ item })}
          />
        )}
      </header>
      {unknown.length > 0 && (
        <p className={classes.why} role="status">
          Left out: {unknown.join(', ')}. Nobody wrote down the {label} of{' '}
          {unknown.length > 1 ? 'these setups' : 'this setup'}; enter it as an item of the setup (“{label} to …”) to
          have its runs here.
        </p>
      )}
      <ArrivedLevel job={job} item={item} label={label} unit={unit} unknown={unknown} />
      {'why' in found ? (
        <p className={classes.why} role="status">
          {found.why}
        </p>
      ) : (
        <>
          <p className={classes.advice} data-testid="response-advice">
            {write(found.advice)}
          </p>
          <Curve found={found} estimate={figures.estimate} unit={unit} label={label} view={view} />
          <Bins found={found} unit={unit} view={view} />
        </>
      )}
      <Levels found={found} unit={unit} view={view} />
    </section>
  );
}

const width = 640;
const height = 290;
const left = 56;
const bottom = 44;
const top = 26;

interface CurveProps {
  found: Response;
  unit: string;
  label: string;
  /** What figures for the crank rest on. */
  estimate: string | undefined;
  view: CompareView;
}

function Curve({ found, unit, label, estimate, view }: CurveProps) {
  const own = useOwnUnits();
  const { whole, levels } = found;
  const kw = (value: number) => convert(value, 'kW', view.units.power);
  const [least, most] = [levels[0]!.x, levels[levels.length - 1]!.x];
  const margin = 0.06 * (most - least);
  const x = (at: number) => left + ((at - least + margin) / (most - least + 2 * margin)) * (width - left - 16);
  const grid = Array.from({ length: 61 }, (_, index) => least + ((most - least) * index) / 60);
  const fitted = grid.map((at) => ({ at, ...valueAt(whole.fit, at) }));
  const values = [
    ...levels.flatMap((level) => level.values),
    ...fitted.flatMap(({ value, halfWidth }) => [value - halfWidth, value + halfWidth]),
  ].map(kw);
  const range = niceRange(Math.min(...values), Math.max(...values), 4);
  const y = (value: number) =>
    top + (1 - (kw(value) - range.least) / (range.most - range.least)) * (height - top - bottom);
  const line = (points: readonly [number, number][]) =>
    points.map(([a, b], index) => `${index ? 'L' : 'M'}${a.toFixed(1)} ${b.toFixed(1)}`).join('');
  const { optimum, gentlest } = whole;
  const ticks = Array.from(
    { length: Math.round((range.most - range.least) / range.step) + 1 },
    (_, index) => range.least + index * range.step,
  );
  return (
    <svg
      className={classes.curve}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`Mean power over ${label}. ${own.write(found.advice)}`}
    >
      {optimum && (
        <rect
          className={classes.likely}
          x={x(optimum.fromX)}
          y={top}
          width={Math.max(2, x(optimum.toX) - x(optimum.fromX))}
          height={height - top - bottom}
        />
      )}
      {ticks.map((tick) => (
        <g key={tick}>
          <line className={classes.grid} x1={left} x2={width - 16} y1={y(tick / kw(1))} y2={y(tick / kw(1))} />
          <text className={classes.tick} x={left - 8} y={y(tick / kw(1)) + 4} textAnchor="end">
            {Number(tick.toFixed(4))}
          </text>
        </g>
      ))}
      <path
        className={classes.band}
        d={`${line(fitted.map(({ at, value, halfWidth }) => [x(at), y(value + halfWidth)]))}${line([...fitted].reverse().map(({ at, value, halfWidth }) => [x(at), y(value - halfWidth)])).replace('M', 'L')}Z`}
      />
      <path className={classes.fit} d={line(fitted.map(({ at, value }) => [x(at), y(value)]))} />
      {levels.flatMap((level) =>
        level.values.map((value, index) => (
          <circle
            key={`${level.x}-${index}`}
            className={classes.run}
            style={{
              fill: setupColour(level.runsOf[index] ?? level.letters, level.runsOf[index] === view.baseline.letter),
            }}
            cx={x(level.x) + (index - (level.values.length - 1) / 2) * 5}
            cy={y(value)}
            r={4}
          />
        )),
      )}
      {levels.map((level) => (
        <text key={level.x} className={classes.tick} x={x(level.x)} y={height - bottom + 18} textAnchor="middle">
          {level.broken.length > 0 && '◆ '}
          {own.write(levelWords(level.x, unit))} ({level.letters})
        </text>
      ))}
      <text className={classes.axis} x={left} y={height - 8}>
        {label}
        {unit && `, ${own.unit(unit)}`} · {view.units.power}, mean {formatRpm(whole.fromRpm)} to{' '}
        {formatRpm(whole.toRpm)} rpm
        {scaleNote({ estimate })}
      </text>
      <line
        className={classes.gentle}
        x1={x(gentlest.x)}
        x2={x(gentlest.x)}
        y1={y(gentlest.value)}
        y2={height - bottom}
      />
      <text
        className={classes.mark}
        x={x(gentlest.x) + (x(gentlest.x) > 0.7 * width ? -6 : 6)}
        textAnchor={x(gentlest.x) > 0.7 * width ? 'end' : 'start'}
        y={height - bottom - 8}
      >
        99.5 % of the best from {own.write(levelWords(gentlest.x, unit))}
      </text>
      {optimum && (
        <text className={classes.mark} x={x(optimum.x)} y={Math.max(12, y(optimum.value) - 12)} textAnchor="middle">
          best ≈ {own.write(levelWords(optimum.x, unit))}
        </text>
      )}
    </svg>
  );
}

/** The best level over engine speed. */
function Bins({ found, unit, view }: { found: Response; unit: string; view: CompareView }) {
  const { write } = useOwnUnits();
  const level = (x: number) => write(levelWords(x, unit));
  return (
    <table className={classes.table}>
      <caption>By engine speed</caption>
      <thead>
        <tr>
          <th>rpm</th>
          <th>best at</th>
          <th>95 % of it</th>
          <th>99.5 % of the best from</th>
          <th>there, {view.units.power}</th>
        </tr>
      </thead>
      <tbody>
        {found.bins.map(({ fromRpm, toRpm, optimum, best, gentlest }) => (
          <tr key={fromRpm}>
            <td>
              {formatRpm(fromRpm)}–{formatRpm(toRpm)}
            </td>
            <td>{optimum ? level(optimum.x) : found.inOrder ? 'not told' : `still rising at ${level(best.x)}`}</td>
            <td>
              {optimum
                ? `${level(optimum.fromX)} to ${level(optimum.toX)}${optimum.openAbove ? ' or beyond' : ''}`
                : '–'}
            </td>
            <td>{level(gentlest.x)}</td>
            <td>{formatPower(gentlest.value, view.units.power)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Levels({ found, unit, view }: { found: { levels: Response['levels'] }; unit: string; view: CompareView }) {
  const { write } = useOwnUnits();
  return (
    <table className={classes.table}>
      <caption>Levels</caption>
      <thead>
        <tr>
          <th>level</th>
          <th>setups</th>
          <th>runs</th>
          <th>mean, {view.units.power}</th>
          <th>against the level above in this table</th>
          <th>limits</th>
        </tr>
      </thead>
      <tbody>
        {found.levels.map((level) => {
          const { step } = level;
          return (
            <tr key={level.x}>
              <td>{write(levelWords(level.x, unit))}</td>
              <td>{level.letters}</td>
              <td>{level.runs}</td>
              <td>{formatPower(level.mean, view.units.power)}</td>
              <td>{step && powerDifference(step.difference, step.halfWidth, view.units.power).whole}</td>
              <td>{level.broken.map((broken) => write(brokenWords(broken))).join('; ')}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
