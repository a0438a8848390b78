import { Button, Group, Progress, Text } from '@mantine/core';
import type { ImportProgress as Done } from './send-import.ts';

const words: Record<Done['doing'], string> = { sending: 'Sending the file', reading: 'Reading it', storing: 'Storing it' }; // prettier-ignore
/** Where each part begins and ends on the bar, %. */
const parts: Record<Done['doing'], [number, number]> = { sending: [0, 25], reading: [25, 90], storing: [90, 100] };

/** How far an import is. Once it is being stored it cannot be cancelled. */
export function ImportProgress({ progress: { doing, done }, cancel }: { progress: Done; cancel: () => void }) {
  const [from, to] = parts[doing];
  return (
    <Group gap={14} wrap="nowrap">
      <div style={{ flex: 1 }}>
        <Text size="sm" role="status">
          {words[doing]}
          {doing !== 'storing' && `: ${Math.round(100 * done)} %`}
        </Text>
        <Progress
          value={from + done * (to - from)}
          aria-label="How far the import is"
          transitionDuration={100}
          mt={6}
        />
      </div>
      <Button variant="default" onClick={cancel} disabled={doing === 'storing'}>
        Cancel the import
      </Button>
    </Group>
  );
}
