import { CloseButton } from '@mantine/core';
import { createContext, use, useEffect, useId, useState, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import classes from './control.module.css';

/** Where what a control can be changed to is shown: one at a time, beneath the text, so that it covers no figure. */
interface DockPlace {
  opened: string | undefined;
  open: (next: (now: string | undefined) => string | undefined) => void;
  place: HTMLElement | null;
}

const DockContext = createContext<DockPlace | undefined>(undefined);

/** Text with controls, and the dock that they open into. */
export function Dock({ children }: { children: ReactNode }) {
  const [opened, open] = useState<string>();
  const [place, setPlace] = useState<HTMLElement | null>(null);
  return (
    <DockContext value={{ opened, open, place }}>
      {children}
      <div ref={setPlace} />
    </DockContext>
  );
}

/** A control's own part of the dock; undefined where it stands in none. */
export function useDock() {
  const dock = use(DockContext);
  const id = useId();
  return (
    dock && {
      opened: dock.opened === id,
      place: dock.place,
      // Closes only this control: one that was opened meanwhile, such as while something was being stored, stays open.
      set: (on: boolean) => dock.open((now) => (on ? id : now === id ? undefined : now)),
    }
  );
}

/** What stands in the dock while its control is open. Escape closes it, and the focus goes back to the control. */
export function Docked({
  label,
  place,
  onClose,
  children,
}: {
  label: string;
  place: HTMLElement;
  onClose: () => void;
  children: ReactNode;
}) {
  const [panel, setPanel] = useState<HTMLElement | null>(null);
  useEffect(() => panel?.querySelector<HTMLElement>('input, button:not([data-close])')?.focus(), [panel]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      // Kept from the crosshair, which Escape takes away as well.
      event.stopImmediatePropagation();
      onClose();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, [onClose]);
  return createPortal(
    <div ref={setPanel} role="dialog" aria-label={label} className={classes.docked}>
      <CloseButton className={classes.close} size={28} aria-label={`Close ${label}`} data-close onClick={onClose} />
      {children}
    </div>,
    place,
  );
}
