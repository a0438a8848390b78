import type { OwnUnits } from '../../units/own-units.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { planForTarget, type Blend } from '../../../core/fuel/blend.ts';
import { Refusal } from '../../../core/refusal.ts';
import { numberOf } from '../../ui/saved-field.tsx';
import classes from '../../ui/file-form.module.css';

/** How much of a fuel at hand brings the tank to a content, residue counted. */
export function BlendHelp({ tank, tankLitres }: { tank: Blend; tankLitres: number | null }) {
  const [target, setTarget] = useState('');
  const [adding, setAdding] = useState('85');
  const own = useOwnUnits();
  const [wanted, has] = [numberOf(target), numberOf(adding)];
  return (
    <details style={{ marginTop: 10 }}>
      <summary className="soft" style={{ cursor: 'pointer' }}>
        To reach another content
      </summary>
      <div className={classes.line}>
        <TextInput
          label="Wanted, % ethanol"
          inputMode="decimal"
          value={target}
          onChange={(event) => setTarget(event.currentTarget.value)}
        />
        <TextInput
          label="With a fuel of, %"
          inputMode="decimal"
          value={adding}
          onChange={(event) => setAdding(event.currentTarget.value)}
        />
      </div>
      <p className={classes.quiet} role="status">
        {typeof wanted === 'number' && typeof has === 'number' && planText(tank, tankLitres, has, wanted, own)}
      </p>
    </details>
  );
}

function planText(tank: Blend, tankLitres: number | null, adding: number, target: number, own: OwnUnits): string {
  const volume = (litres: number) => own.whole(litres, 'L');
  try {
    const plan = planForTarget(tank, tankLitres ?? Infinity, adding, target);
    const drain = plan.drainLitres > 0.05 ? `Drain ${volume(plan.drainLitres)} first, then add` : 'Add';
    const limit = tankLitres === null ? ' The tank’s volume is not written on the car, so it is not kept.' : '';
    return `${drain} ${volume(plan.addLitres)}: ${volume(plan.result.litres)} of ${target} %. Measure after it.${limit}`;
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}
