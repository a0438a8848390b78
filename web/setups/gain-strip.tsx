import { useId } from 'react';
import classes from './gain-strip.module.css';

const width = 176;
const height = 24;
/** The strip never zooms in further than this, so that noise looks like noise, kW. */
const leastReachKw = 1.5;

/** A setup's gain over engine speed, small: where it gave and where it took. */
export function GainStrip({
  rpm,
  gainKw,
  called,
}: {
  rpm: Float64Array;
  gainKw: Float64Array;
  /** The gain is more than scatter: only then is it coloured. */
  called: boolean;
}) {
  const hatch = useId();
  const reach = gainKw.reduce((most, value) => Math.max(most, Math.abs(value)), leastReachKw);
  const every = Math.max(1, Math.floor(rpm.length / 88));
  const area = (clip: (value: number) => number) => {
    const points = [`M0 ${height / 2}`];
    for (let index = 0; index < rpm.length; index += every) {
      const x = ((rpm[index]! - rpm[0]!) / (rpm[rpm.length - 1]! - rpm[0]!)) * width;
      points.push(`L${x.toFixed(1)} ${(height / 2 - (clip(gainKw[index]!) / reach) * (height / 2 - 1)).toFixed(1)}`);
    }
    return `${points.join('')}L${width} ${height / 2}Z`;
  };
  return (
    <svg className={classes.strip} viewBox={`0 0 ${width} ${height}`} preserveAspectRatio="none" aria-hidden>
      <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V5" className={classes.hatch} />
      </pattern>
      <path d={area((value) => Math.max(0, value))} className={called ? classes.gain : classes.quiet} />
      <path
        d={area((value) => Math.min(0, value))}
        {...(called ? { fill: `url(#${hatch})` } : { className: classes.quiet })}
      />
      <path d={`M0 ${height / 2}H${width}`} className={classes.zero} />
    </svg>
  );
}
