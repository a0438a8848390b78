import { Menu } from '@mantine/core';
import { runKinds, type RunKind } from '../../../../contract/recording.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/queries.ts';
import classes from './control-bar.module.css';
import { runKindWords } from '../../../setups/run-kind-words.ts';

/** What kind of run comes next, large, and changeable. */
export function NextRunKind() {
  const plan = useLive((state) => state.bay?.plan);
  const change = useChange(api.planNext);
  if (!plan) return null;
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
        {runKinds.map((kind: RunKind) => (
          <Menu.Item key={kind} className={classes.kind} onClick={() => change.mutate({ ...plan, kind })}>
            {runKindWords[kind].name}
            <small>{runKindWords[kind].what}</small>
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
