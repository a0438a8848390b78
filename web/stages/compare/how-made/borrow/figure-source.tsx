import { useUnits } from '../../../../units/use-own-units.tsx';
import { Group, NumberInput, Select } from '@mantine/core';
import { useEffect, useState } from 'react';
import { convert, powerUnits, type PowerUnit } from '../../../../../core/units/units.ts';
import type { SourceProps } from './draft.ts';

/** A norm that is known by one figure: its peak power. */
export function FigureSource({ onDraft, problem }: SourceProps) {
  const { power: powerUnit } = useUnits();
  const [unit, setUnit] = useState<PowerUnit>(powerUnit);
  const [peak, setPeak] = useState<number | string>('');
  useEffect(
    () =>
      onDraft(
        typeof peak === 'number' && peak > 0
          ? { curves: [{ name: '', points: [], peakKw: Number(convert(peak, unit, 'kW').toFixed(4)), errorKw: null }] }
          : { problem: 'Give the peak power.' },
      ),
    [peak, unit, onDraft],
  );
  return (
    <Group grow align="start">
      <NumberInput label="Peak power" min={0} value={peak} onChange={setPeak} error={problem} />
      <Select
        label="Unit"
        data={[...powerUnits]}
        allowDeselect={false}
        value={unit}
        onChange={(value) => value && setUnit(value as PowerUnit)}
      />
    </Group>
  );
}
