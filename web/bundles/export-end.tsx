import { Button, Group, Progress, Text } from '@mantine/core';
import type { ExportState } from './use-export.ts';

interface ExportEndProps {
  state: ExportState;
  ready: boolean;
  onExport: () => void;
  close: () => void;
}

/** The end of a dialog that exports: what went wrong, its buttons, or how far the file is. */
export function ExportEnd({ state: { done, problem, cancel }, ready, onExport, close }: ExportEndProps) {
  return (
    <>
      {problem && (
        <Text size="sm" c="var(--stop)" role="alert">
          {problem}
        </Text>
      )}
      {done === undefined ? (
        <Group justify="flex-end">
          <Button variant="subtle" color="gray" onClick={close}>
            Cancel
          </Button>
          <Button data-autofocus onClick={onExport} disabled={!ready}>
            Export
          </Button>
        </Group>
      ) : (
        <Group gap={14} wrap="nowrap">
          <div style={{ flex: 1 }}>
            <Text size="sm" role="status">
              Writing the file: {Math.round(100 * done)} %
            </Text>
            <Progress value={100 * done} aria-label="How far the file is" mt={6} transitionDuration={100} />
          </div>
          <Button variant="default" onClick={cancel}>
            Cancel
          </Button>
        </Group>
      )}
    </>
  );
}
