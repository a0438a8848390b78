import { useEffect, useRef, useState, type ReactNode } from 'react';
import classes from './file-form.module.css';

/** A form that takes room only once it is wanted: a word opens it, Escape closes it. */
export function OpenedForm({ word, open = false, children }: { word: string; open?: boolean; children: ReactNode }) {
  const [asked, setAsked] = useState(false);
  const within = useRef<HTMLFieldSetElement>(null);
  const opens = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (asked) within.current?.querySelector<HTMLElement>('input, select, textarea')?.focus();
  }, [asked]);
  if (open) return children;
  if (!asked)
    return (
      <button ref={opens} type="button" className={classes.opens} onClick={() => setAsked(true)}>
        {word}
      </button>
    );
  const close = () => {
    setAsked(false);
    setTimeout(() => opens.current?.focus());
  };
  return (
    <fieldset
      ref={within}
      className={classes.opened}
      aria-label={word}
      onKeyDown={(event) => event.key === 'Escape' && close()}
    >
      {children}
    </fieldset>
  );
}
