import { Button, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import type { RunChange } from '../../contract/job/job-requests.ts';
import type { Run } from '../../contract/job/records.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';

/** Sets a run aside for a reason, or lets it count again with null, and offers to take that back. */
export function useSetAside(run: Pick<Run, 'id' | 'label' | 'setAsideReason'>): (why: string | null) => Promise<void> {
  const change = useChange((sent: RunChange) => api.changeRun(run.id, sent));
  return async (why) => {
    const before = run.setAsideReason;
    // What was pressed may be gone before the server answers, so the undo is offered from here.
    await change.mutateAsync({ setAsideReason: why }).then(
      () =>
        offerUndo(why === null ? `${run.label} counts again.` : `${run.label} is set aside.`, () =>
          change.mutate({ setAsideReason: before }),
        ),
      () => undefined,
    );
  };
}

function offerUndo(message: string, undo: () => void): void {
  const id = notifications.show({
    message: (
      <Group justify="space-between">
        {message}
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            undo();
            notifications.hide(id);
          }}
        >
          Undo
        </Button>
      </Group>
    ),
    autoClose: 8000,
  });
}
