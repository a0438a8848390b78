import { useOwnUnits } from '../units/use-own-units.tsx';
import { SeverityMark } from '../ui/severity.tsx';
import classes from './limits-now.module.css';
import { useLiveLimits } from './watch-limits.ts';

/** During a run, beside the lanes: the limits that can be read, each with what is left of it. */
export function LimitsNow() {
  const own = useOwnUnits();
  const readable = useLiveLimits((state) => state.limits).filter(
    ({ reading, unread }) => reading !== undefined || unread,
  );
  if (readable.length === 0)
    return <p className="soft">No limit of this job can be read here. Limits are written in the brief.</p>;
  return (
    <section className={classes.limits} aria-label="Limits">
      {readable.map((limit) => (
        <div
          key={limit.quantity}
          data-crossed={limit.crossed || undefined}
          data-near={limit.near || undefined}
          data-unread={limit.unread || undefined}
        >
          <span>
            {(limit.crossed || limit.near || limit.unread) && (
              <SeverityMark severity={limit.crossed ? 'stop' : 'mind'} />
            )}{' '}
            {limit.label}
          </span>
          <b className="number">
            {own.figure(limit.reading ?? NaN, limit.unit)} <small>{own.unit(limit.unit)}</small>
          </b>
          <small>
            {limit.unread
              ? 'is not read: nobody watches this limit'
              : limit.applies
                ? `${own.whole(limit.value, limit.unit)} at ${limit.side}`
                : 'not at part load'}
          </small>
        </div>
      ))}
    </section>
  );
}

/** Stands where a crossed limit will stand, so that nothing below moves when one is crossed. */
export function LimitsKept() {
  const crossed = useLiveLimits((state) => state.shouts.length > 0);
  const watched = useLiveLimits(
    ({ limits }) => limits.filter(({ reading, unread }) => reading !== undefined && !unread).length,
  );
  const all = useLiveLimits(({ limits }) => limits.length);
  const gaps = useLiveLimits((state) => state.gaps);
  if (crossed) return <LimitShouts />;
  const count = watched < all ? `${watched} of ${all} watched` : `${watched} watched`;
  return (
    <p className={classes.kept}>
      {gaps.map(({ quantity, label, seconds, now }) => (
        <b key={quantity}>
          <SeverityMark severity="mind" /> {label} {now ? 'is not read' : `was not read for ${Math.ceil(seconds)} s`}
          .{' '}
        </b>
      ))}
      {watched === 0 ? 'No limit is watched in this run.' : `No limit crossed, ${count}.`}
    </p>
  );
}

/** What was crossed in the run going on, where it cannot be missed: shape, word, and (elsewhere) sound. */
export function LimitShouts({ word = true }: { word?: boolean }) {
  const own = useOwnUnits();
  const shouts = useLiveLimits((state) => state.shouts);
  if (shouts.length === 0) return null;
  return (
    <div className={classes.shouts} role="alert">
      {shouts.map((limit) => (
        <p key={limit.quantity}>
          <svg width="34" height="34" viewBox="0 0 14 14" aria-hidden>
            <path d="M7 .5 13.5 7 7 13.5 .5 7Z" fill="currentColor" />
          </svg>
          {word && <b>Stop</b>} {limit.label} {own.whole(limit.reading ?? NaN, limit.unit)}
          <small>
            {limit.side === 'most' ? 'limit' : 'at least'} {own.whole(limit.value, limit.unit)}
          </small>
        </p>
      ))}
    </div>
  );
}
