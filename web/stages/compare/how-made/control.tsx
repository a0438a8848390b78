import { Popover, Radio, Stack } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import { Docked, useDock } from './dock.tsx';
import classes from './control.module.css';

/** A word in the text that opens what it can be changed to, in the dock where there is one; what is inside may close it. */
export function Control({
  text,
  label,
  children,
}: {
  text: string;
  label: string;
  children: ReactNode | ((close: () => void) => ReactNode);
}) {
  const [byItself, setByItself] = useState(false);
  const [target, setTarget] = useState<HTMLButtonElement | null>(null);
  const dock = useDock();
  const opened = dock ? dock.opened : byItself;
  const set = dock ? dock.set : setByItself;
  const close = () => {
    set(false);
    const dialog = document.activeElement?.closest('[role="dialog"]');
    // Where another control has been opened meanwhile, closing this one leaves the focus there.
    if (!dialog || dialog.getAttribute('aria-label') === label) target?.focus();
  };
  const inside = typeof children === 'function' ? children(close) : children;
  const button = (
    <button
      ref={setTarget}
      className={classes.control}
      aria-label={`${label}: ${text}`}
      aria-expanded={opened}
      onClick={() => set(!opened)}
    >
      {text}
    </button>
  );
  if (dock)
    return (
      <>
        {button}
        {opened && dock.place && (
          <Docked label={label} place={dock.place} onClose={close}>
            {inside}
          </Docked>
        )}
      </>
    );
  return (
    <Popover opened={opened} onChange={set} position="bottom-start" shadow="md" width="auto" trapFocus>
      <Popover.Target>{button}</Popover.Target>
      <Popover.Dropdown>{inside}</Popover.Dropdown>
    </Popover>
  );
}

/** One of a few, each a word. */
export function Choice<T extends string>({
  options,
  wordsOf = (option) => option,
  value,
  onChange,
}: {
  options: readonly T[];
  /** What an option is called. */
  wordsOf?: (option: T) => string;
  value: string;
  onChange: (value: T) => void;
}) {
  return (
    <Radio.Group value={value} onChange={(chosen) => onChange(chosen as T)}>
      <Stack gap={8}>
        {options.map((option) => (
          <Radio key={option} value={option} label={wordsOf(option)} />
        ))}
      </Stack>
    </Radio.Group>
  );
}
