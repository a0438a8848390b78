import { NativeSelect, NumberInput } from '@mantine/core';
import { figureQuantities } from '../../contract/values/asked-figure.ts';
import type { AskedFigure, FigureQuantity } from '../../core/curve/asked-figure.ts';

/** What a figure is of, and where on the curve: the fields that a target and a forecast share. */
export function AskedFigureFields({
  label,
  asked,
  onChange,
}: {
  label: string;
  asked: AskedFigure;
  onChange: (asked: AskedFigure) => void;
}) {
  const { quantity, fromRpm, toRpm } = asked;
  const number = (typed: number | string) => (typeof typed === 'number' && typed > 0 ? Math.round(typed) : null);
  const isAt = quantity.endsWith(' at');
  const isMean = quantity.startsWith('mean');
  return (
    <>
      <NativeSelect
        label={label}
        data={[...figureQuantities]}
        value={quantity}
        onChange={(event) =>
          onChange({ quantity: event.currentTarget.value as FigureQuantity, fromRpm: null, toRpm: null })
        }
      />
      {(isAt || isMean) && (
        <NumberInput
          label={isAt ? 'At, rpm' : 'From, rpm'}
          placeholder={isMean ? 'all driven' : ''}
          min={1}
          hideControls
          value={fromRpm ?? ''}
          onChange={(typed) => onChange({ ...asked, fromRpm: number(typed) })}
        />
      )}
      {isMean && (
        <NumberInput
          label="To, rpm"
          placeholder="all driven"
          min={1}
          hideControls
          value={toRpm ?? ''}
          onChange={(typed) => onChange({ ...asked, toRpm: number(typed) })}
        />
      )}
    </>
  );
}

/** Whether it says all that it must. */
export function isWhole({ quantity, fromRpm, toRpm }: AskedFigure): boolean {
  if (quantity.endsWith(' at')) return fromRpm !== null;
  return fromRpm === null || toRpm === null || toRpm > fromRpm;
}
