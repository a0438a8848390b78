import type { Severity } from '../../core/checks/check.ts';
import classes from './severity.module.css';

const words: Record<Severity, string> = { note: 'note', mind: 'mind', stop: 'stop' };

/** A severity's own shape: dot, triangle or diamond, with its word for those who cannot see it. */
export function SeverityMark({ severity }: { severity: Severity }) {
  return (
    <svg
      className={classes[severity]}
      width="14"
      height="14"
      viewBox="0 0 14 14"
      role="img"
      aria-label={words[severity]}
    >
      {severity === 'note' && <circle cx="7" cy="7" r="2" />}
      {severity === 'mind' && <path d="M7 1.5 13 12.5H1Z" />}
      {severity === 'stop' && <path d="M7 .5 13.5 7 7 13.5 .5 7Z" />}
    </svg>
  );
}

/** A severity and its sentence, in a list. */
export function FindingLine({ severity, children }: { severity: Severity; children: React.ReactNode }) {
  return (
    <li className={classes.line}>
      <SeverityMark severity={severity} />
      <span>{children}</span>
    </li>
  );
}

export function FindingList({ children }: { children: React.ReactNode }) {
  return <ul className={classes.list}>{children}</ul>;
}
