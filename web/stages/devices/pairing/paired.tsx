import { Button, Group } from '@mantine/core';
import dayjs from 'dayjs';
import { useState } from 'react';
import { useAccount } from '../../../state/account.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import classes from '../lines/lines.module.css';
import { PairOne } from './pair-one.tsx';

/** Instruments on other machines: each is let in once by a code, and may be shut out again. */
export function Paired() {
  const { outside, instruments } = useLive((state) => state.pairing);
  const account = useAccount();
  const [pairing, setPairing] = useState(false);
  const offer = useChange(() => api.offerPairing());
  if (!outside && instruments.length === 0) return null;
  const mayPair = account?.me?.role === 'owner';
  return (
    <section className={classes.byHand} aria-label="On other machines">
      <Group gap={12} justify="space-between">
        <h2>On other machines</h2>
        {mayPair && outside && (
          <Button
            variant="default"
            size="sm"
            onClick={() => {
              setPairing(true);
              offer.mutate(undefined);
            }}
          >
            Pair an instrument
          </Button>
        )}
      </Group>
      {instruments.length === 0 && (
        <p className={classes.said}>
          None is paired.{' '}
          {account?.accounts
            ? 'An owner pairs an instrument with a code.'
            : 'It takes an account first, on the page People.'}
        </p>
      )}
      {instruments.map(({ device, at }) => (
        <One key={device} device={device} at={at} mayShutOut={mayPair} />
      ))}
      {pairing && <PairOne offer={offer} another={() => offer.mutate(undefined)} onClose={() => setPairing(false)} />}
    </section>
  );
}

function One({ device, at, mayShutOut }: { device: string; at: string; mayShutOut: boolean }) {
  const [sure, setSure] = useState(false);
  const shutOut = useChange(() => api.revokePairing(device));
  return (
    <div>
      <Group gap={12} justify="space-between">
        <span>
          <b>{device}</b> paired {dayjs(at).format('D MMM YYYY, HH:mm')}
        </span>
        {mayShutOut && !sure && (
          <Button variant="subtle" color="gray" size="sm" onClick={() => setSure(true)}>
            Shut it out
          </Button>
        )}
        {sure && (
          <Group gap={8}>
            <Button variant="subtle" color="gray" size="sm" onClick={() => setSure(false)}>
              Keep it
            </Button>
            <Button variant="default" size="sm" loading={shutOut.isPending} onClick={() => shutOut.mutate(undefined)}>
              Shut it out now
            </Button>
          </Group>
        )}
      </Group>
      {sure && (
        <FindingList>
          <FindingLine severity="mind">
            Its connection ends and its key is worth nothing: it has to be paired anew. Its runs stay.
          </FindingLine>
        </FindingList>
      )}
    </div>
  );
}
