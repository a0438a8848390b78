import classes from './mark.module.css';

/** Suvok's mark: two curves from one foot, and the name. */
export function Mark() {
  return (
    <span className={classes.mark}>
      <svg width="24" height="22" aria-hidden>
        <path d="M2 19C8 18 9 9 22 3" fill="none" stroke="var(--ink)" strokeWidth="2.6" strokeLinecap="round" />
        <path d="M2 19C9 19 13 14 22 12" fill="none" stroke="var(--faint)" strokeWidth="2.6" strokeLinecap="round" />
      </svg>
      Suvok
    </span>
  );
}
