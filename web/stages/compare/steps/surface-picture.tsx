import { useId } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import type { PlaneFigures, PlaneRange } from '../../../../core/response/plane-figures.ts';
import { levelWords } from '../../../../core/response/level-words.ts';
import type { PlaneItem } from '../../../../core/response/plane.ts';
import { surfaceAt, type PlanePoint } from '../../../../core/response/surface-fit.ts';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { formatRpm } from '../../../../core/wording/figures.ts';
import { forbiddenBy } from '../../../../core/response/best-on-plane.ts';
import { gentlestSentence, nextSentence, placeSentence, shareWords } from '../../../../core/wording/plane-words.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import response from './response-picture.module.css';
import classes from './surface-picture.module.css';

const size = 400;
const margin = { left: 74, bottom: 44, top: 12, right: 12 };
const cells = 28;

/** Two items at once: power as a shade over the plane, what the limits forbid, where runs were, what is recommended and what to try next. */
export function SurfacePicture({ job, figures }: { job: Job; figures: PlaneFigures }) {
  const { write } = useOwnUnits();
  const { plane, whole, bins, missing, unread, noise, noiseAssumed } = figures;
  const points = plane.setups.length;
  return (
    <>
      <dl className={classes.advice} data-testid="plane-advice">
        <dt>Try next</dt>
        <dd>{write(nextSentence(figures, whole))}</dd>
        <dt>Gentlest good</dt>
        <dd>{write(gentlestSentence(figures, whole))}</dd>
        {missing.length > 0 && (
          <>
            <dt>Missing</dt>
            <dd>{missing.join('; ')}. Until then this rests mostly on what such surfaces are usually like.</dd>
          </>
        )}
        {unread.length > 0 && (
          <>
            <dt>Not watched</dt>
            <dd>{unread.join(', ')}: not read in these runs, so it holds no proposal back.</dd>
          </>
        )}
      </dl>
      <Plane job={job} figures={figures} />
      <p className={classes.note}>
        Mean power from {formatRpm(whole.fromRpm)} to {formatRpm(whole.toRpm)} rpm as a share of that of{' '}
        {plane.setups[0]?.letter}; {points} {points === 1 ? 'point' : 'points'}; a run scatters by{' '}
        {(100 * noise).toFixed(2)} %{noiseAssumed ? ', mostly assumed' : ''}. A surface of the second degree with usual
        bends as its prior; limits keep their own. Darker is more; ring: gentlest good; dashed: try next; hatched: not
        surely within {heldNames(whole)}. It advises; you decide.
      </p>
      {bins.length > 1 && (
        <table className={response.bins} aria-label="By engine speed">
          <thead>
            <tr>
              <th scope="col">rpm</th>
              <th scope="col">Gentlest good there</th>
              <th scope="col">on the beginning, there</th>
              <th scope="col">over the whole range, on the gentlest good of it</th>
            </tr>
          </thead>
          <tbody>
            {bins.map((bin) => (
              <tr key={bin.fromRpm}>
                <th scope="row">
                  {formatRpm(bin.fromRpm)}–{formatRpm(bin.toRpm)}
                </th>
                <td>{write(placeSentence(figures, bin.gentlest))}</td>
                <td className="number">{shareWords(bin.gentlest.value - 1, bin.gentlest.halfWidth)}</td>
                <td className="number">
                  {isSamePlace(bin.gentlest, whole.gentlest)
                    ? 'the same setting'
                    : shareWords(bin.overWhole.value, bin.overWhole.halfWidth)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

/** The limits that were read, for the hatching's words. */
const heldNames = ({ limits }: PlaneRange) =>
  limits.length > 0 ? `the limit of ${limits.map(({ label }) => label.toLowerCase()).join(' or ')}` : 'a limit';

const isSamePlace = (a: PlanePoint, b: PlanePoint) => a.u === b.u && a.v === b.v;

function Plane({ job, figures }: { job: Job; figures: PlaneFigures }) {
  const { write } = useOwnUnits();
  const hatch = useId();
  const { plane, whole } = figures;
  const [u0, u1] = rangeOf(plane.setups, whole, 'u');
  const [v0, v1] = rangeOf(plane.setups, whole, 'v');
  const x = (u: number) => margin.left + ((u - u0) / (u1 - u0)) * (size - margin.left - margin.right);
  const y = (v: number) => margin.top + (1 - (v - v0) / (v1 - v0)) * (size - margin.top - margin.bottom);
  const grid = Array.from({ length: cells * cells }, (_, at) => ({
    u: u0 + ((at % cells) + 0.5) * ((u1 - u0) / cells),
    v: v0 + (Math.floor(at / cells) + 0.5) * ((v1 - v0) / cells),
  }));
  const values = grid.map((point) => surfaceAt(whole.surface, point).value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const [width, height] = [(x(u1) - x(u0)) / cells, (y(v0) - y(v1)) / cells];
  const forbidden = (point: PlanePoint) => forbiddenBy(whole.limits, point).length > 0;
  return (
    <svg
      className={classes.plane}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={`Power over ${plane.across.label} and ${plane.down.label}. ${write(nextSentence(figures, whole))}`}
    >
      <defs>
        <pattern id={hatch} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" x2="0" y1="0" y2="7" stroke="var(--stop)" strokeWidth="2" />
        </pattern>
      </defs>
      {grid.map((point, at) => (
        <rect
          key={at}
          x={x(point.u) - width / 2}
          y={y(point.v) - height / 2}
          width={width}
          height={height}
          fill="var(--setup-1)"
          fillOpacity={0.06 + 0.7 * ((values[at]! - least) / Math.max(1e-9, most - least)) ** 1.5}
        />
      ))}
      {grid.map(
        (point, at) =>
          forbidden(point) && (
            <rect
              key={`no ${at}`}
              x={x(point.u) - width / 2}
              y={y(point.v) - height / 2}
              width={width}
              height={height}
              fill={`url(#${hatch})`}
              fillOpacity={0.8}
            />
          ),
      )}
      {ticksOf(u0, u1).map((u) => (
        <text key={`u${u}`} x={x(u)} y={size - margin.bottom + 16} textAnchor="middle">
          {write(tick(plane.across, u))}
        </text>
      ))}
      {ticksOf(v0, v1).map((v) => (
        <text key={`v${v}`} x={margin.left - 6} y={y(v) + 4} textAnchor="end">
          {write(tick(plane.down, v))}
        </text>
      ))}
      <text className={classes.title} x={(x(u0) + x(u1)) / 2} y={size - 6} textAnchor="middle">
        {plane.across.label}
      </text>
      <text
        className={classes.title}
        transform={`translate(12 ${(y(v0) + y(v1)) / 2}) rotate(-90)`}
        textAnchor="middle"
      >
        {plane.down.label}
      </text>
      <circle
        cx={x(whole.gentlest.u)}
        cy={y(whole.gentlest.v)}
        r={17}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      {whole.next && (
        <circle
          cx={x(whole.next.u)}
          cy={y(whole.next.v)}
          r={13}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2.5}
          strokeDasharray="4 4"
        />
      )}
      {plane.setups.map(({ id, letter, u, v }) => (
        <g key={id}>
          <circle
            cx={x(u)}
            cy={y(v)}
            r={9}
            fill={setupColour(letter, job.setups[0]?.id === id)}
            stroke="var(--ground)"
            strokeWidth={1.5}
          />
          <text className={classes.letter} x={x(u)} y={y(v) + 4} textAnchor="middle">
            {letter}
          </text>
        </g>
      ))}
    </svg>
  );
}

const tick = ({ startX, step, unit }: PlaneItem, steps: number) => levelWords(startX + steps * step, unit);

function rangeOf(
  setups: readonly PlanePoint[],
  { gentlest, next }: PlaneRange,
  of: 'u' | 'v',
): readonly [number, number] {
  const all = [...setups, gentlest, ...(next ? [next] : [])].map((point) => point[of]);
  return [Math.floor(Math.min(...all)) - 0.6, Math.ceil(Math.max(...all)) + 0.6];
}

function ticksOf(from: number, to: number): number[] {
  const every = to - from > 7 ? 2 : 1;
  const ticks: number[] = [];
  for (let at = Math.ceil(from); at <= to; at++) if (at % every === 0) ticks.push(at);
  return ticks;
}
