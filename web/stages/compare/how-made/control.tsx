import { Popover, Radio, Stack } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import classes from './control.module.css';

/** A word in the text that opens what it can be changed to; what is inside may close it once it is done. */
export function Control({
  text,
  label,
  children,
}: {
  text: string;
  label: string;
  children: ReactNode | ((close: () => void) => ReactNode);
}) {
  const [opened, setOpened] = useState(false);
  return (
    <Popover opened={opened} onChange={setOpened} position="bottom-start" shadow="md" width="auto" trapFocus>
      <Popover.Target>
        <button className={classes.control} aria-label={`${label}: ${text}`} onClick={() => setOpened(!opened)}>
          {text}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        {typeof children === 'function' ? children(() => setOpened(false)) : children}
      </Popover.Dropdown>
    </Popover>
  );
}

/** One of a few, each a word. */
export function Choice<T extends string>({
  options,
  value,
  onChange,
}: {
  options: readonly T[];
  value: string;
  onChange: (value: T) => void;
}) {
  return (
    <Radio.Group value={value} onChange={(chosen) => onChange(chosen as T)}>
      <Stack gap={8}>
        {options.map((option) => (
          <Radio key={option} value={option} label={option} />
        ))}
      </Stack>
    </Radio.Group>
  );
}
