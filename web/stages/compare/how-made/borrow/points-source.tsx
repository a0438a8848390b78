import { useUnits } from '../../../../units/use-own-units.tsx';
import { SegmentedControl, Stack, Textarea } from '@mantine/core';
import { useEffect, useState } from 'react';
import { readCurvePoints } from '../../../../../core/exchange/borrowed/curve-points.ts';
import { Refusal } from '../../../../../core/refusal.ts';
import { powerUnits, type PowerUnit } from '../../../../../core/units/units.ts';
import type { Drafted, SourceProps } from './draft.ts';

/** A curve's points, typed or pasted. */
export function PointsSource({ onDraft, problem }: SourceProps) {
  const { power: powerUnit } = useUnits();
  const [unit, setUnit] = useState<PowerUnit>(powerUnit);
  const [text, setText] = useState('');
  useEffect(() => onDraft(draftedFrom(text, unit)), [text, unit, onDraft]);
  return (
    <Stack gap={10}>
      <SegmentedControl
        aria-label="Unit of its power"
        data={[...powerUnits]}
        value={unit}
        onChange={(value) => setUnit(value as PowerUnit)}
      />
      <Textarea
        label="Its points: engine speed and power, a pair a line"
        placeholder={'2000  28\n3000  47\n4000  70'}
        autosize
        minRows={6}
        maxRows={14}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
        error={problem}
      />
    </Stack>
  );
}

function draftedFrom(text: string, unit: PowerUnit): Drafted {
  try {
    return { curves: [{ name: '', points: readCurvePoints(text, unit), peakKw: null, errorKw: null }] };
  } catch (error) {
    if (error instanceof Refusal) return { problem: error.message };
    throw error;
  }
}
