import classes from './keycap.module.css';

/** The key that does the same as the control beside it. */
export function Keycap({ children }: { children: string }) {
  return <kbd className={classes.keycap}>{children}</kbd>;
}
