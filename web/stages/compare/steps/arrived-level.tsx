import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { Button, NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import type { NumericItem } from '../../../../core/setup/item.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import classes from './response-picture.module.css';

interface ArrivedLevelProps {
  job: Job;
  /** The thing, and what it is called. */
  item: NumericItem;
  label: string;
  unit: string;
  /** Letters of the setups whose level nobody wrote down. */
  unknown: readonly string[];
}

/** Asks what a thing stood at as the car arrived, where that is what nobody wrote down. */
export function ArrivedLevel({ job, item, label, unit, unknown }: ArrivedLevelProps) {
  const arrived = job.setups.find(({ parentId }) => parentId === null);
  const told = useOwnUnits().told(unit);
  const [value, setValue] = useState<number | string>('');
  const keep = useChange((to: number) => {
    return api.changeSetup(arrived?.id ?? 0, { items: [...(arrived?.items ?? []), { ...item, by: undefined, to }] });
  });
  if (!arrived || !unknown.includes(arrived.letter)) return null;
  return (
    <form
      className={classes.arrived}
      onSubmit={(event) => {
        event.preventDefault();
        if (value !== '') keep.mutate(told.kept(Number(value)));
      }}
    >
      <NumberInput
        label={`The ${label} as it arrived${told.unit && `, ${told.unit}`}`}
        value={value}
        onChange={setValue}
        decimalSeparator="."
      />
      <Button type="submit" variant="default" size="md" disabled={value === ''} loading={keep.isPending}>
        Write down
      </Button>
    </form>
  );
}
