import { Button, Group, Progress, Text } from '@mantine/core';
import type { SendProgress as Done } from '../state/send-file.ts';

const words: Record<Done['doing'], string> = {
  sending: 'Sending the file',
  reading: 'Reading it',
  storing: 'Storing it',
};
/** Where each part begins and ends on the bar, %. */
const parts: Record<Done['doing'], [number, number]> = { sending: [0, 25], reading: [25, 90], storing: [90, 100] };
const whole: typeof parts = { sending: [0, 30], reading: [30, 30], storing: [30, 100] };

interface SendingProps {
  progress: Done;
  cancel: () => void;
  /** Storing is one short step at the end that cannot be broken off; left out, it takes its time and can. */
  storesAtOnce?: boolean;
}

/** How far a file is that is sent and taken in. */
export function Sending({ progress: { doing, done }, cancel, storesAtOnce = false }: SendingProps) {
  const [from, to] = storesAtOnce ? parts[doing] : whole[doing];
  const isLast = storesAtOnce && doing === 'storing';
  return (
    <Group gap={14} wrap="nowrap">
      <div style={{ flex: 1 }}>
        <Text size="sm" role="status">
          {words[doing]}
          {!isLast && `: ${Math.round(100 * done)} %`}
        </Text>
        <Progress
          value={from + done * (to - from)}
          aria-label="How far the import is"
          transitionDuration={100}
          mt={6}
        />
      </div>
      <Button variant="default" onClick={cancel} disabled={isLast}>
        Cancel the import
      </Button>
    </Group>
  );
}
