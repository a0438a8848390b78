import { fetchWhatChanged } from './what-changed.ts';
import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useKeys } from '../keys/use-keys.ts';
import { api } from './api.ts';
import { forgetAct, useActs } from './acts.ts';
import { queryClient, tellProblem } from './queries.ts';

async function undo(act: string): Promise<void> {
  try {
    await api.undo(act);
    // The toast that offered this undo goes: there is nothing left to undo.
    notifications.hide(toastOf(act));
    notifications.show({ message: 'Undone.', autoClose: 3000 });
  } catch (error) {
    tellProblem(error as Error);
  } finally {
    forgetAct(act);
    await fetchWhatChanged();
  }
}

/** The toast that offers to undo an act. */
const toastOf = (act: string) => `act-${act}`;

/** Takes something away, says so, and offers to bring it back. */
export async function takeAway(what: string, send: () => Promise<unknown>): Promise<void> {
  try {
    await send();
  } catch (error) {
    tellProblem(error as Error);
    return;
  }
  const act = useActs.getState().acts.at(-1);
  await fetchWhatChanged();
  if (!act) return;
  const id = toastOf(act);
  notifications.show({
    id,
    autoClose: 12_000,
    message: (
      <>
        {what} taken away.{' '}
        <Button
          size="sm"
          variant="default"
          onClick={() => {
            notifications.hide(id);
            void undo(act);
          }}
        >
          Bring back
        </Button>
      </>
    ),
  });
}

/** Ctrl or ⌘ with Z takes back what this page did last, outside text fields. */
export function UndoKey() {
  const undoLast = () =>
    void whenStored().then(() => {
      const act = useActs.getState().acts.at(-1);
      if (act) void undo(act);
      else notifications.show({ message: 'Nothing that this page did is left to undo.', autoClose: 3000 });
    });
  // A text field undoes its own typing. A switch or a choice has no undo of its own.
  useKeys(
    [
      {
        keys: ['mod+Z'],
        shown: 'Ctrl Z',
        says: 'Undo what this page did last',
        run: ({ target }) => !takesText(target) && undoLast(),
        options: { preventDefault: false },
      },
    ],
    true,
  );
  return null;
}

/** Waits for a request that is under way: it is the last act, and has no number before the server has answered. */
function whenStored(): Promise<void> {
  if (queryClient.isMutating() === 0) return Promise.resolve();
  return new Promise((resolve) => {
    const stop = queryClient.getMutationCache().subscribe(() => {
      if (queryClient.isMutating() > 0) return;
      stop();
      resolve();
    });
  });
}

/** Whether what is typed goes into it. */
function takesText(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || target.matches('input:not([type="radio"], [type="checkbox"]), textarea, select');
}
