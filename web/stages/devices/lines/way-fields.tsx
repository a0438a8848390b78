import { Group, NumberInput, SegmentedControl, Select, TextInput } from '@mantine/core';
import classes from './lines.module.css';
import type { LinesDraft } from './lines-draft.ts';

const ways = [
  { value: 'tcp client', label: 'Suvok connects to it' },
  { value: 'tcp server', label: 'It connects to Suvok' },
  { value: 'udp', label: 'It sends packets' },
  { value: 'serial', label: 'Serial port' },
] as const;
const said = {
  'tcp client': 'Lines over TCP, from an instrument that listens.',
  'tcp server': 'Lines over TCP: Suvok listens, and takes them from one machine alone.',
  udp: 'Lines in UDP packets, taken from one machine alone. What is lost on the way is gone.',
  serial: 'Lines over a serial port of this machine: 8 bits, no parity, 1 stop bit.',
} as const;
const speeds = ['9600', '19200', '38400', '57600', '115200', '230400', '460800', '921600'];

interface WayFieldsProps {
  draft: LinesDraft;
  change: (part: Partial<LinesDraft>) => void;
}

/** Where an instrument's lines come from. */
export function WayFields({ draft, change }: WayFieldsProps) {
  const port = (
    <NumberInput
      label={draft.by === 'tcp client' ? 'Its port' : 'Port that Suvok listens on'}
      min={1}
      max={65_535}
      hideControls
      value={draft.port ?? ''}
      onChange={(value) => change({ port: value === '' ? undefined : Number(value) })}
    />
  );
  return (
    <>
      <SegmentedControl
        aria-label="How its lines come"
        data={[...ways]}
        value={draft.by}
        onChange={(by) => change({ by })}
      />
      <p className={classes.said}>{said[draft.by]}</p>
      <Group gap={12} align="end">
        {draft.by === 'tcp client' && (
          <TextInput
            label="Its name or address"
            placeholder="192.168.1.20"
            value={draft.host}
            onChange={(event) => change({ host: event.currentTarget.value })}
          />
        )}
        {draft.by !== 'serial' && port}
        {(draft.by === 'tcp server' || draft.by === 'udp') && (
          <TextInput
            label="Taken from"
            placeholder="192.168.1.20"
            value={draft.from}
            onChange={(event) => change({ from: event.currentTarget.value })}
          />
        )}
        {draft.by === 'serial' && (
          <>
            <TextInput
              label="Port"
              placeholder="/dev/ttyUSB0"
              value={draft.path}
              onChange={(event) => change({ path: event.currentTarget.value })}
            />
            <Select
              label="Speed, baud"
              w={130}
              data={speeds}
              value={String(draft.baud)}
              allowDeselect={false}
              onChange={(baud) => baud && change({ baud: Number(baud) })}
            />
          </>
        )}
        {draft.by !== 'udp' && (
          <TextInput
            label="Sent to it first"
            placeholder="nothing"
            value={draft.greeting}
            onChange={(event) => change({ greeting: event.currentTarget.value })}
          />
        )}
      </Group>
    </>
  );
}
