import { useUnits } from '../../../../units/use-own-units.tsx';
import { FileInput, Group, NativeSelect, NumberInput, SegmentedControl, Stack, Text } from '@mantine/core';
import { useEffect, useMemo, useState } from 'react';
import {
  calibrated,
  handPx,
  tracedByColour,
  tracedCurve,
  type PicturePlace,
} from '../../../../../core/exchange/borrowed/traced-curve.ts';
import { kwOf } from '../../../../../core/exchange/borrowed/result-table.ts';
import { Refusal } from '../../../../../core/refusal.ts';
import { powerUnits, torqueUnits, type PowerUnit, type UnitName } from '../../../../../core/units/units.ts';
import { formatPower, formatRpm } from '../../../../../core/wording/figures.ts';
import button from '../../../../ui/text-button.module.css';
import type { DraftCurve, SourceProps } from './draft.ts';
import { openSheet, type SheetFile, type SheetPicture } from './read-picture.ts';
import { SheetView } from './sheet-view.tsx';
import { steps, type Mark } from './sheet-steps.ts';

const noMarks: readonly Mark[] = steps.map(() => ({ place: undefined, figure: '' }));

/** A picture of a printed sheet: two places of each axis, then its line, followed by colour or pressed by hand. */
export function PictureSource({ onDraft, problem }: SourceProps) {
  const { power } = useUnits();
  const [file, setFile] = useState<SheetFile>();
  const [picture, setPicture] = useState<SheetPicture>();
  const [refused, setRefused] = useState<string>();
  const [marks, setMarks] = useState(noMarks);
  /** The mark that is being set anew; otherwise the first one that is missing. */
  const [again, setAgain] = useState<number>();
  const [unit, setUnit] = useState<UnitName>('kW');
  const [by, setBy] = useState<'colour' | 'hand'>('colour');
  const [places, setPlaces] = useState<readonly PicturePlace[]>([]);
  const missing = marks.findIndex(({ place }) => !place);
  const active = again ?? (missing < 0 ? steps.length : missing);
  const made = useMemo(() => curveOf(marks, places, by, unit), [marks, places, by, unit]);
  useEffect(() => {
    if (!picture) onDraft({ problem: refused ?? 'Choose a picture of the sheet.' });
    else onDraft(typeof made === 'string' ? { problem: made } : { curves: [made] });
  }, [picture, refused, made, onDraft]);

  const told = async (work: () => Promise<void>) => {
    setRefused(undefined);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setRefused(error.message);
    }
  };
  const show = (sheet: SheetFile, page: number) =>
    told(async () => {
      setPicture(await sheet.read(page));
      setMarks(noMarks);
      setPlaces([]);
      setAgain(undefined);
    });
  const open = (chosen: File | null) =>
    told(async () => {
      setPicture(undefined);
      setFile(undefined);
      if (!chosen) return;
      const sheet = await openSheet(chosen);
      setFile(sheet);
      await show(sheet, 1);
    });
  const press = (place: PicturePlace) =>
    told(() => {
      if (active < steps.length) {
        setMarks(marks.map((mark, at) => (at === active ? { ...mark, place } : mark)));
        setAgain(undefined);
      } else if (by === 'hand') setPlaces([...places, place]);
      else if (picture) setPlaces(tracedByColour(picture, place));
      return Promise.resolve();
    });
  return (
    <Stack gap={10}>
      <Group grow align="start">
        <FileInput
          label="Picture of the sheet"
          placeholder="PNG, JPEG or PDF"
          accept="image/png,image/jpeg,application/pdf"
          clearable
          onChange={(chosen) => void open(chosen)}
          error={picture ? undefined : (refused ?? problem)}
        />
        {file && file.pages > 1 && (
          <NativeSelect
            label="Page"
            data={Array.from({ length: file.pages }, (_, at) => String(at + 1))}
            onChange={({ currentTarget: { value } }) => void show(file, Number(value))}
          />
        )}
        <NativeSelect
          label="The line is"
          data={[
            ...powerUnits.map((value) => ({ value, label: `power, ${value}` })),
            ...torqueUnits.map((value) => ({ value, label: `torque, ${value}` })),
          ]}
          value={unit}
          onChange={({ currentTarget: { value } }) => setUnit(value as UnitName)}
        />
      </Group>
      {picture && (
        <>
          <Group align="end" gap={10} wrap="nowrap">
            {steps.map(({ label, unit: own }, at) => (
              <NumberInput
                key={label}
                label={`${label}, ${own ?? unit}`}
                size="xs"
                hideControls
                value={marks[at]!.figure}
                onFocus={() => setAgain(marks[at]!.place ? at : undefined)}
                onChange={(figure) => setMarks(marks.map((mark, place) => (place === at ? { ...mark, figure } : mark)))}
              />
            ))}
          </Group>
          <Group justify="space-between">
            <Text size="sm" fw={600} role="status">
              {active < steps.length
                ? `Press on the picture: ${steps[active]!.press}`
                : by === 'colour'
                  ? 'Press on the line: it is followed by its colour.'
                  : 'Press along the line, point after point.'}
            </Text>
            <Group gap={12}>
              {by === 'hand' && places.length > 0 && (
                <button type="button" className={button.more} onClick={() => setPlaces(places.slice(0, -1))}>
                  Take the last point away
                </button>
              )}
              {active > 0 && (
                <button
                  type="button"
                  className={button.more}
                  onClick={() => {
                    setMarks(marks.map(({ figure }) => ({ place: undefined, figure })));
                    setPlaces([]);
                    setAgain(undefined);
                  }}
                >
                  Mark the axes again
                </button>
              )}
              <SegmentedControl
                size="xs"
                aria-label="How the line is traced"
                data={[
                  { value: 'colour', label: 'By its colour' },
                  { value: 'hand', label: 'By hand' },
                ]}
                value={by}
                onChange={(value) => {
                  setBy(value as typeof by);
                  setPlaces([]);
                }}
              />
            </Group>
          </Group>
          <SheetView
            picture={picture}
            marks={marks}
            places={places}
            points={by === 'hand'}
            onPress={(place) => void press(place)}
          />
          <Text size="sm" c={problem || refused ? 'red' : 'dimmed'} role={problem || refused ? 'alert' : undefined}>
            {refused ?? (typeof made === 'string' ? (problem ?? made) : summary(made, power))}
          </Text>
        </>
      )}
    </Stack>
  );
}

/** The curve, or what is still missing. */
function curveOf(
  marks: readonly Mark[],
  places: readonly PicturePlace[],
  by: 'colour' | 'hand',
  unit: UnitName,
): DraftCurve | string {
  const axis = (kind: 'rpm' | 'value') =>
    marks.flatMap(({ place, figure }, at) =>
      steps[at]!.axis === kind && place && typeof figure === 'number' ? [[place, figure] as const] : [],
    );
  try {
    const calibration = calibrated({ rpm: axis('rpm'), value: axis('value') });
    if (places.length === 0) return 'Trace the line.';
    const { points, error } = tracedCurve(places, calibration, by === 'hand' ? handPx : undefined);
    const role = (powerUnits as readonly string[]).includes(unit) ? 'power' : 'torque';
    const kw = points.map(([rpm, value]): [number, number] => [
      Math.round(rpm),
      Number(kwOf(role, unit, value, rpm).toFixed(3)),
    ]);
    const rising = kw.filter(([rpm], at) => at === 0 || rpm > kw[at - 1]![0]);
    // The same error of torque is worth more power the faster the engine turns.
    return {
      name: '',
      points: rising,
      peakKw: null,
      errorKw: Number(kwOf(role, unit, error, rising[rising.length - 1]![0]).toFixed(2)),
    };
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}

function summary({ points, errorKw }: DraftCurve, power: PowerUnit): string {
  const [rpm, kw] = points.reduce((best, point) => (point[1] > best[1] ? point : best));
  return `Traced from ${formatRpm(points[0]![0])} to ${formatRpm(points[points.length - 1]![0])} rpm: peak ${formatPower(kw, power)} ${power} at ${formatRpm(rpm)} rpm, ± ${formatPower(errorKw ?? 0, power)} ${power} by the tracing (95 %).`;
}
