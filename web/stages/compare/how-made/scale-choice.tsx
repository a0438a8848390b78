import { keptFigure, typedFigure } from '../../../units/typed-figure.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { NumberInput, Radio, Stack, Text } from '@mantine/core';
import type { Job } from '../../../../contract/job/records.ts';
import { writeCrankLoss } from '../../../../core/dyno/crank.ts';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

/** A loss that a first look at the crank begins with, percent; only an assumption. */
const usualPercent = 15;

/** Whether figures are those measured at the wheels, or an estimate for the crank and what it rests on. */
export function ScaleChoice({ job, view, change }: { job: Job; view: CompareView; change: ChangeView }) {
  const power = useOwnUnits().told('kW');
  const coasts = job.runs.filter((run) => run.kind === 'coast-down' && run.state !== 'recording' && run.label);
  const assumed = view.crank !== undefined && /^\d/.test(view.crank);
  const [percent, fixedKw] = assumed ? view.crank.split('+').map(Number) : [];
  const set = (share: number, kw: number) => change({ crank: writeCrankLoss(share / 100, kw) });
  return (
    <Stack gap={12}>
      <Radio.Group
        aria-label="Wheels or crank"
        value={view.crank === undefined ? 'wheels' : assumed ? 'assumed' : view.crank}
        onChange={(chosen) =>
          chosen === 'wheels'
            ? change({ crank: undefined })
            : chosen === 'assumed'
              ? set(usualPercent, 0)
              : change({ crank: chosen })
        }
      >
        <Stack gap={9}>
          <Radio value="wheels" label="At the wheels" description="As measured at the roller or hub" />
          <Radio
            value="assumed"
            label="At the crank, loss assumed"
            description="An estimate: nobody measured the loss"
          />
          {coasts.map((run) => (
            <Radio
              key={run.id}
              value={run.label ?? ''}
              label={`At the crank, loss from coast-down ${run.label}`}
              description="An estimate, and a lower bound: without load less is lost"
            />
          ))}
        </Stack>
      </Radio.Group>
      {assumed && (
        <>
          <NumberInput
            label="Lost on the way, percent of the crank’s power"
            value={percent ?? usualPercent}
            onChange={(value) => typeof value === 'number' && set(value, fixedKw ?? 0)}
            min={0}
            max={50}
            suffix=" %"
          />
          <NumberInput
            label="and beside it, whatever the power"
            value={Number(typedFigure(fixedKw ?? 0, power, 'kW'))}
            onChange={(value) =>
              typeof value === 'number' && set(percent ?? usualPercent, keptFigure(value, power, 'kW'))
            }
            min={0}
            max={Math.round(power.of(100))}
            suffix={` ${power.unit}`}
          />
        </>
      )}
      {coasts.length === 0 && (
        <Text size="xs" c="dimmed">
          A coast-down recorded in this job would measure the loss without load.
        </Text>
      )}
    </Stack>
  );
}
