import { fetchWhatChanged } from '../../../../state/what-changed.ts';
import { Button, Group, Modal, SegmentedControl, Stack, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { lazy, Suspense, useCallback, useState } from 'react';
import type { Job } from '../../../../../contract/job/records.ts';
import { api } from '../../../../state/api.ts';
import { tellProblem } from '../../../../state/queries.ts';
import type { Drafted } from './draft.ts';
import { FigureSource } from './figure-source.tsx';
import { PointsSource } from './points-source.tsx';
import { TableSource } from './table-source.tsx';

/** Needed by few: its reader of pages is fetched when it is opened. */
const PictureSource = lazy(() => import('./picture-source.tsx').then(({ PictureSource: made }) => ({ default: made })));

interface BorrowCurveProps {
  job: Job;
  opened: boolean;
  onClose: () => void;
  onBorrowed: (id: number) => void;
}

const sources = {
  points: { label: 'Points', Source: PointsSource },
  table: { label: 'Result table', Source: TableSource },
  picture: { label: 'Picture of a sheet', Source: PictureSource },
  figure: { label: 'One figure', Source: FigureSource },
} as const;
type SourceName = keyof typeof sources;

const longestName = 40;

/** Takes in power curves from elsewhere: points, a result table, a picture of a print, or a norm of one figure. */
export function BorrowCurve({ job, opened, onClose, onBorrowed }: BorrowCurveProps) {
  const [source, setSource] = useState<SourceName>('points');
  const [drafted, setDrafted] = useState<Drafted>({ problem: 'Nothing was given yet.' });
  const [tried, setTried] = useState(false);
  const form = useForm({
    initialValues: { name: '', origin: '', scale: 'wheels' },
    validate: {
      name: (text) => (text.trim() === '' && !isNamed(drafted) ? 'Name the curve.' : null),
      origin: (text) =>
        text.trim() === '' ? 'Say where it comes from: a curve of unknown origin is worth nothing.' : null,
    },
  });
  const onDraft = useCallback((made: Drafted) => setDrafted(made), []);
  const close = () => {
    setTried(false);
    onClose();
  };
  const borrow = async ({ name, origin, scale }: typeof form.values) => {
    if ('problem' in drafted) return;
    const { curves } = drafted;
    try {
      let first: number | undefined;
      for (const [at, curve] of curves.entries()) {
        const several = curves.length > 1 ? ` ${at + 1}` : '';
        const own =
          curves.length > 1 && curve.name ? curve.name : name.trim() ? `${name.trim()}${several}` : curve.name;
        const { id } = await api.addEntry('jobs', job.id, 'borrowed-curves', {
          ...curve,
          name: own.slice(0, longestName),
          origin,
          scale,
        });
        first ??= id;
      }
      await fetchWhatChanged();
      form.reset();
      close();
      if (first !== undefined) onBorrowed(first);
    } catch (error) {
      tellProblem(error as Error);
    }
  };
  const { Source } = sources[source];
  return (
    <Modal
      opened={opened}
      onClose={close}
      title="Borrow a curve"
      size={source === 'picture' ? 'min(1100px, 94vw)' : 'lg'}
    >
      <form
        onSubmit={(event) => {
          setTried(true);
          form.onSubmit((values) => void borrow(values))(event);
        }}
      >
        <Stack gap={14}>
          <Text size="sm" c="dimmed">
            For orientation: a maker’s sheet, a like car’s norm, another shop’s reading. It is drawn dashed, with its
            origin, and no verdict is made on it.
          </Text>
          <SegmentedControl
            aria-label="What it is taken from"
            data={Object.entries(sources).map(([value, { label }]) => ({ value, label }))}
            value={source}
            onChange={(value) => {
              setDrafted({ problem: 'Nothing was given yet.' });
              setTried(false);
              setSource(value as SourceName);
            }}
          />
          <Group grow align="start">
            <TextInput label="Name" placeholder="maker’s sheet" data-autofocus {...form.getInputProps('name')} />
            <TextInput
              label="Where it comes from"
              placeholder="brochure of the year, read off the printed curve"
              {...form.getInputProps('origin')}
            />
          </Group>
          <SegmentedControl
            aria-label="Told at"
            data={[
              { value: 'wheels', label: 'at the wheels' },
              { value: 'crank', label: 'at the crank' },
            ]}
            {...form.getInputProps('scale')}
          />
          <Suspense fallback={<div aria-busy />}>
            <Source onDraft={onDraft} problem={tried && 'problem' in drafted ? drafted.problem : undefined} />
          </Suspense>
          <Group justify="flex-end">
            <Button variant="default" onClick={close}>
              Cancel
            </Button>
            <Button type="submit">Lay it beside</Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}

const isNamed = (drafted: Drafted) => 'curves' in drafted && drafted.curves.every(({ name }) => name !== '');
