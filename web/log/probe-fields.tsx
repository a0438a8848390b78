import { NumberInput } from '@mantine/core';

interface Probe {
  delayS: number;
  offset: number;
}

/** How late a λ probe is and how much too lean it reads. */
export function ProbeFields({ probe, onChange }: { probe: Probe; onChange: (probe: Probe) => void }) {
  return (
    <>
      <NumberInput
        label="Late by, s"
        min={0}
        max={3}
        step={0.01}
        decimalScale={3}
        value={probe.delayS}
        onChange={(value) => onChange({ ...probe, delayS: Number(value) || 0 })}
      />
      <NumberInput
        label="Too lean by, λ"
        min={-0.2}
        max={0.2}
        step={0.005}
        decimalScale={3}
        value={probe.offset}
        onChange={(value) => onChange({ ...probe, offset: Number(value) || 0 })}
      />
    </>
  );
}
