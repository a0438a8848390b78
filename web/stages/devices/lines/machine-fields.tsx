import { Group, NumberInput } from '@mantine/core';
import { isDynoKind } from '../../../../contract/instruments/bench-link.ts';
import type { LinesDraft } from './lines-draft.ts';

const figures = [
  { name: 'inertiaKgM2', label: 'Inertia of the drum, kg·m²', hub: 'Inertia of each hub, kg·m²' },
  { name: 'radiusM', label: 'Drum radius, m', hub: null },
  { name: 'aNm', label: 'Own losses a, N·m' },
  { name: 'bNmPerRadS', label: 'b, N·m per rad/s' },
  { name: 'cNmPerRadS2', label: 'c, N·m per rad²/s²' },
  { name: 'loadCellLagS', label: 'Load cell lag, s' },
  { name: 'ratio', label: 'Engine ÷ drum speed' },
] as const;

interface MachineFieldsProps {
  draft: LinesDraft;
  /** Engine speed is among its columns: the ratio is not needed. */
  pickup: boolean;
  change: (part: Partial<LinesDraft>) => void;
}

/** What figures need to know of a dyno. */
export function MachineFields({ draft, pickup, change }: MachineFieldsProps) {
  if (!isDynoKind(draft.kind)) return null;
  const wanted = figures.filter(({ name }) => {
    if (name === 'ratio') return !pickup;
    if (name === 'radiusM') return draft.kind !== 'hub';
    return name !== 'loadCellLagS' || draft.kind !== 'inertia-roller';
  });
  return (
    <Group gap={12} align="end">
      {wanted.map((figure) => (
        <NumberInput
          key={figure.name}
          label={draft.kind === 'hub' && 'hub' in figure ? (figure.hub ?? figure.label) : figure.label}
          w={190}
          hideControls
          min={0}
          decimalScale={6}
          value={draft.machine[figure.name] ?? ''}
          onChange={(value) => {
            const others = Object.entries(draft.machine).filter(([name]) => name !== figure.name);
            change({ machine: Object.fromEntries(value === '' ? others : [...others, [figure.name, Number(value)]]) });
          }}
        />
      ))}
    </Group>
  );
}
