import { Menu } from '@mantine/core';
import { runKinds, type RunKind, type RunPlan } from '../../../../contract/instruments/recording.ts';
import type { Job } from '../../../../contract/job/records.ts';
import { suitsEngine } from '../../../../core/run-kinds/kinds-of-engine.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import classes from './control-bar.module.css';
import { runKindWords } from '../../../job/run-kind-words.ts';

/** What kind of run comes next, large, and changeable. */
export function NextRunKind({ job: { car } }: { job: Pick<Job, 'car'> }) {
  const bay = useLive((state) => state.bay);
  const change = useChange((next: RunPlan) => api.planNext(bay?.bay ?? 0, next));
  if (!bay) return null;
  const { plan } = bay;
  const kinds = runKinds.filter((kind) => kind === plan.kind || suitsEngine(kind, car.ignition));
  return (
    <Menu position="top-start" shadow="md">
      <Menu.Target>
        <button
          className={classes.gear}
          title="What kind of run comes next"
          aria-label={`Kind of run: ${runKindWords[plan.kind].name}`}
        >
          {runKindWords[plan.kind].name}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {kinds.map((kind: RunKind) => (
          <Menu.Item key={kind} className={classes.kind} onClick={() => change.mutate({ ...plan, kind })}>
            {runKindWords[kind].name}
            <small>{runKindWords[kind].what}</small>
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
