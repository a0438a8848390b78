import { useUnits } from '../../../../units/use-own-units.tsx';
import { Checkbox, FileInput, NativeSelect, Stack, Text } from '@mantine/core';
import { useEffect, useMemo, useState } from 'react';
import { decodedText, readLogTable, type LogTable } from '../../../../../core/exchange/loggers/log-table.ts';
import {
  guessedRoles,
  resultCurves,
  type ResultColumn,
  type ResultCurve,
} from '../../../../../core/exchange/borrowed/result-table.ts';
import { Refusal } from '../../../../../core/refusal.ts';
import { powerUnits, torqueUnits, type PowerUnit, type UnitName } from '../../../../../core/units/units.ts';
import { formatPower, formatRpm } from '../../../../../core/wording/figures.ts';
import type { SourceProps } from './draft.ts';
import classes from './table-source.module.css';

/** What a column can be: left out, engine speed, or a power or torque in a unit. */
const kinds = ['', 'engineSpeed', ...powerUnits, ...torqueUnits] as const;
const kindWords: Record<string, string> = { '': 'left out', engineSpeed: 'engine speed, rpm' };
/** A result table has two rows at least. */
const leastRows = 2;

const kindOf = ({ role, unit }: ResultColumn) => (role === null ? '' : role === 'engineSpeed' ? role : (unit ?? ''));

function columnAs({ heading }: ResultColumn, kind: string): ResultColumn {
  if (kind === '') return { heading, role: null, unit: null };
  if (kind === 'engineSpeed') return { heading, role: 'engineSpeed', unit: null };
  return {
    heading,
    role: (powerUnits as readonly string[]).includes(kind) ? 'power' : 'torque',
    unit: kind as UnitName,
  };
}

/** A dyno's result table: its columns guessed and put right, and the runs of it that are wanted. */
export function TableSource({ onDraft, problem }: SourceProps) {
  const { power } = useUnits();
  const [table, setTable] = useState<LogTable>();
  const [roles, setRoles] = useState<ResultColumn[]>([]);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [refused, setRefused] = useState<string>();
  const curves = useMemo(() => (table ? curvesOf(table, roles) : undefined), [table, roles]);
  useEffect(() => {
    if (!curves) return onDraft({ problem: refused ?? 'Choose the file that the other dyno wrote.' });
    if (typeof curves === 'string') return onDraft({ problem: curves });
    const wanted = curves.filter((_, at) => !left.has(at));
    onDraft(
      wanted.length === 0
        ? { problem: 'Choose one run at least.' }
        : { curves: wanted.map((curve) => ({ ...curve, peakKw: null, errorKw: null })) },
    );
  }, [curves, left, refused, onDraft]);
  const open = async (file: File | null) => {
    setTable(undefined);
    setRefused(undefined);
    setLeft(new Set());
    if (!file) return;
    try {
      const read = readLogTable(decodedText(new Uint8Array(await file.arrayBuffer())), leastRows);
      setTable(read);
      setRoles(guessedRoles(read));
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setRefused(error.message);
    }
  };
  return (
    <Stack gap={10}>
      <FileInput
        label="Result table of another dyno"
        description="Text (CSV): engine speed with power or torque, one run or several side by side"
        placeholder="Choose a file"
        accept=".csv,.txt,.tsv,text/*"
        clearable
        onChange={(file) => void open(file)}
        error={refused ?? (table ? undefined : problem)}
      />
      {table && (
        <div className={classes.columns}>
          {roles.map((column, at) => (
            <NativeSelect
              key={at}
              label={column.heading}
              size="xs"
              data={kinds.map((kind) => ({ value: kind, label: kindWords[kind] ?? kind }))}
              value={kindOf(column)}
              onChange={({ currentTarget: { value } }) =>
                setRoles(roles.map((one, place) => (place === at ? columnAs(one, value) : one)))
              }
            />
          ))}
        </div>
      )}
      {typeof curves === 'string' && (
        <Text size="sm" c="red" role="alert">
          {curves}
        </Text>
      )}
      {Array.isArray(curves) && (
        <Stack gap={8}>
          {curves.map((curve, at) => (
            <Checkbox
              key={at}
              label={told(curve, at, power)}
              checked={!left.has(at)}
              onChange={() => setLeft(new Set(left.has(at) ? [...left].filter((one) => one !== at) : [...left, at]))}
            />
          ))}
        </Stack>
      )}
      {table?.remarks.map((remark) => (
        <Text key={remark} size="xs" c="dimmed">
          {remark}
        </Text>
      ))}
    </Stack>
  );
}

/** The curves, or why there are none. */
function curvesOf(table: LogTable, roles: readonly ResultColumn[]): ResultCurve[] | string {
  try {
    return resultCurves(table, roles);
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}

function told({ name, points }: ResultCurve, at: number, power: PowerUnit): string {
  const [rpm, kw] = points.reduce((best, point) => (point[1] > best[1] ? point : best));
  return `${name || `Run ${at + 1} of the table`}: ${formatRpm(points[0]![0])} to ${formatRpm(points[points.length - 1]![0])} rpm, peak ${formatPower(kw, power)} ${power} at ${formatRpm(rpm)}`;
}
