import { Button, CopyButton, Group, Modal, Stack } from '@mantine/core';
import type { PairingOffer } from '../../../../contract/people/pairing.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useNow } from '../../../ui/use-now.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import classes from './pair-one.module.css';

interface PairOneProps {
  /** The code that was made, or why there is none. */
  offer: { data: PairingOffer | undefined; error: Error | null; isPending: boolean };
  another: () => void;
  onClose: () => void;
}

/** A code for one instrument, where to say it, and whether it has been said. */
export function PairOne({ offer: { data, error, isPending }, another, onClose }: PairOneProps) {
  const { until, instruments } = useLive((state) => state.pairing);
  const now = useNow();
  const close = () => {
    if (until !== null) void api.withdrawPairing().catch(() => undefined);
    onClose();
  };
  // What was paired after the code was made was let in by it.
  const paired = data && instruments.find(({ at }) => Date.parse(at) >= Date.parse(data.at));
  const restS = data ? Math.max(0, Math.round((Date.parse(data.until) - now) / 1000)) : 0;
  const spent = data !== undefined && !paired && until === null && !isPending;
  return (
    <Modal opened onClose={close} size={620} title="Pair an instrument on another machine">
      <Stack gap={14}>
        {error && (
          <FindingList>
            <FindingLine severity="stop">{error.message}</FindingLine>
          </FindingList>
        )}
        {data && !paired && (
          <>
            <p className={classes.words}>
              Say this code to the instrument, once. It gets a key of its own for it, and comes in with that from then
              on.
            </p>
            <Group gap={20} align="center">
              <span className={classes.code} aria-label="Code" data-spent={spent || undefined}>
                {data.code}
              </span>
              <CopyButton value={data.code}>
                {({ copied, copy }) => (
                  <Button variant="default" size="sm" onClick={copy}>
                    {copied ? 'Copied' : 'Copy'}
                  </Button>
                )}
              </CopyButton>
            </Group>
            <dl className={classes.place}>
              <dt>Where</dt>
              <dd>
                {data.outside.hosts.join(' or ')}, port {data.outside.port}, over TLS
              </dd>
              <dt>Certificate, SHA-256</dt>
              <dd className={classes.print}>{data.outside.fingerprint}</dd>
            </dl>
          </>
        )}
        <p className={classes.words} role="status">
          {paired && (
            <>
              <b>{paired.device}</b> is paired. It stands on this page as soon as it says hello.
            </>
          )}
          {spent &&
            'This code is worth nothing any more: its time is over, five wrong ones were said, or another was made.'}
          {data &&
            !paired &&
            !spent &&
            `Waiting for the instrument; the code lasts ${Math.floor(restS / 60)} min ${restS % 60} s.`}
        </p>
        <Group justify="flex-end" gap={12}>
          {(spent || paired) && (
            <Button variant="default" loading={isPending} onClick={another}>
              {paired ? 'Pair another one' : 'Another code'}
            </Button>
          )}
          <Button onClick={close}>{paired ? 'Done' : 'Cancel'}</Button>
        </Group>
      </Stack>
    </Modal>
  );
}
