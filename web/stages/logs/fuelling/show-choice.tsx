import { SegmentedControl } from '@mantine/core';
import type { LogsView } from '../view/log-address.ts';
import type { ChangeLogsView } from '../view/use-logs-view.ts';

/** Lanes of a run, or the fuelling errors of its setup. */
export function ShowChoice({ view, change }: { view: LogsView; change: ChangeLogsView }) {
  return (
    <SegmentedControl
      size="xs"
      aria-label="What is shown"
      data={[
        { value: 'lanes', label: 'Lanes' },
        { value: 'fuelling', label: 'Fuelling' },
      ]}
      value={view.show}
      onChange={(show) => change({ show, cell: undefined })}
    />
  );
}
