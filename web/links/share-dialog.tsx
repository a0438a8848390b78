import { Button, Modal, NativeSelect, Radio, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import dayjs from 'dayjs';
import type { Job } from '../../contract/job/records.ts';
import type { ReportView } from '../../contract/report/report.ts';
import { sharedPath } from '../../contract/report/shared-link.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { useReachedOrigin } from '../state/reached-origin.ts';
import { copyText } from '../ui/save-file.ts';
import classes from './share-dialog.module.css';

interface ShareDialogProps {
  job: Job;
  /** How a comparison is shown. */
  view: ReportView;
  opened: boolean;
  onClose: () => void;
}

/** Makes a link by which somebody without an account reads one kept report or the comparison, and nothing else. */
export function ShareDialog({ opened, onClose, ...asked }: ShareDialogProps) {
  return (
    <Modal opened={opened} onClose={onClose} title="Share, to read only">
      {opened && <ShareForm {...asked} close={onClose} />}
    </Modal>
  );
}

const comparison = 'comparison';
const lasts = [
  { value: '1', label: 'one day' },
  { value: '7', label: 'one week' },
  { value: '30', label: '30 days' },
  { value: '90', label: '90 days' },
  { value: '365', label: 'one year' },
];

function ShareForm({ job, view, close }: Pick<ShareDialogProps, 'job' | 'view'> & { close: () => void }) {
  const last = job.reportVersions.at(-1);
  const [what, setWhat] = useState(last ? String(last.id) : comparison);
  const [whom, setWhom] = useState('');
  const [days, setDays] = useState('30');
  const make = useChange(() =>
    api.shareJob(job.id, {
      reportVersionId: what === comparison ? null : Number(what),
      whom,
      days: Number(days),
      view,
    }),
  );
  if (make.data) return <MadeLink link={make.data} close={close} />;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate(undefined);
      }}
    >
      <Stack gap={14}>
        <Radio.Group label="What is read" value={what} onChange={setWhat}>
          <Stack gap={10} mt={6}>
            {[...job.reportVersions].reverse().map(({ id, number, note, createdAt }) => (
              <Radio
                key={id}
                value={String(id)}
                label={`Report, version ${number}${note ? `: ${note}` : ''}`}
                description={`As it was kept on ${dayjs(createdAt).format('D MMM YYYY')}, with whatever it says of the owner`}
              />
            ))}
            <Radio
              value={comparison}
              label="Comparison, as it stands when it is opened"
              description="What is delivered against what arrived: lanes, figures, findings; without owner and plate"
            />
          </Stack>
        </Radio.Group>
        {!last && (
          <Text size="sm" c="dimmed">
            A report can be shared once a version of it is kept (Report).
          </Text>
        )}
        <TextInput
          label="For whom"
          placeholder="e.g. the owner"
          value={whom}
          maxLength={80}
          onChange={(event) => setWhom(event.currentTarget.value)}
        />
        <NativeSelect
          label="The link holds for"
          data={lasts}
          value={days}
          onChange={(event) => setDays(event.currentTarget.value)}
        />
        <div className={classes.end}>
          <Button variant="default" onClick={close}>
            Cancel
          </Button>
          <Button type="submit" loading={make.isPending}>
            Make the link
          </Button>
        </div>
      </Stack>
    </form>
  );
}

/** Shown once: what is stored opens nothing. */
function MadeLink({ link: { key, endsAt }, close }: { link: { key: string; endsAt: string }; close: () => void }) {
  const { pending, origin } = useReachedOrigin();
  if (pending) return <Text size="sm">Looking up the address …</Text>;
  const address = (origin ?? window.location.origin) + sharedPath(key);
  return (
    <Stack gap={14}>
      <p className={classes.address} data-testid="shared-address">
        {address}
      </p>
      <Text size="sm">
        It holds until {dayjs(endsAt).format('D MMMM YYYY, HH:mm')} and is shown here once. Whoever has it can read, and
        nothing else; it can be taken back under Shared links in Report.
      </Text>
      {!origin && (
        <Text size="sm" role="note">
          This Suvok answers on this machine only: the link opens here and nowhere else. Start it with HOST set to its
          name or address in the network, then share again (docs/operations.md).
        </Text>
      )}
      <div className={classes.end}>
        <Button variant="default" onClick={close}>
          Done
        </Button>
        <Button onClick={() => copyText(address, 'The link is copied.')}>Copy the link</Button>
      </div>
    </Stack>
  );
}
