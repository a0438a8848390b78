import { Button, Group } from '@mantine/core';
import type { ReactNode } from 'react';

interface FormFootProps {
  /** What sends the form is called. */
  sends: string;
  isSending?: boolean;
  onCancel: () => void;
  /** What takes the thing away, on the other side; absent for a new one. */
  removes?: ReactNode;
}

/** The foot of a dialog with fields: taking it away on the left, cancelling and sending on the right. */
export function FormFoot({ sends, isSending = false, onCancel, removes }: FormFootProps) {
  return (
    <Group justify="space-between">
      {removes ?? <span />}
      <Group>
        <Button variant="subtle" color="gray" onClick={onCancel}>
          Cancel
        </Button>
        <Button type="submit" loading={isSending}>
          {sends}
        </Button>
      </Group>
    </Group>
  );
}
