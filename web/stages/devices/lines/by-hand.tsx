import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import type { BaysState } from '../../../../contract/bays/live.ts';
import type { PlainInstrument } from '../../../../contract/instruments/plain-instrument.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { ConnectLines } from './connect-lines.tsx';
import classes from './lines.module.css';

/** Instruments that were connected by hand: where each comes from, why nothing comes, and the way to change it. */
export function ByHand() {
  const plain = useLive((state) => state.plain);
  if (plain.length === 0) return null;
  return (
    <section className={classes.byHand} aria-label="Connected by hand">
      <h2>Connected by hand</h2>
      {plain.map((one) => (
        <One key={one.instrument.device} one={one} />
      ))}
    </section>
  );
}

function One({ one: { instrument, problem } }: { one: BaysState['plain'][number] }) {
  const [changing, setChanging] = useState(false);
  const letGo = useChange(() => api.disconnectPlain(instrument.device));
  return (
    <div>
      <Group gap={12} justify="space-between">
        <span>
          <b>{instrument.device}</b> {wayWords(instrument.way)}
        </span>
        <Group gap={8}>
          <Button variant="default" size="sm" onClick={() => setChanging(true)}>
            Change
          </Button>
          <Button
            variant="subtle"
            color="gray"
            size="sm"
            loading={letGo.isPending}
            onClick={() => letGo.mutate(undefined)}
          >
            Let it go
          </Button>
        </Group>
      </Group>
      {problem && (
        <FindingList>
          <FindingLine severity="mind">{problem} It is tried again every two seconds.</FindingLine>
        </FindingList>
      )}
      {changing && <ConnectLines instrument={instrument} bay={null} onClose={() => setChanging(false)} />}
    </div>
  );
}

function wayWords(way: PlainInstrument['way']): string {
  switch (way.by) {
    case 'tcp client':
      return `lines over TCP from ${way.host}, port ${way.port}`;
    case 'tcp server':
      return `lines over TCP, port ${way.port}, from ${way.from}`;
    case 'udp':
      return `packets on port ${way.port}, from ${way.from}`;
    case 'serial':
      return `lines over ${way.path}, ${way.baud} baud`;
  }
}
