import { Autocomplete, TextInput } from '@mantine/core';
import type { PlainInstrument } from '../../../../contract/instruments/plain-instrument.ts';
import { cellValue, lineCells, perSecond, type PlainColumn } from '../../../../core/exchange/recordings/plain-line.ts';
import {
  channelLabel,
  knownChannelNamed,
  knownChannels,
  toChannelUnit,
  type KnownChannel,
} from '../../../../core/recording/channels.ts';
import classes from './lines.module.css';
import { unitFits } from './lines-draft.ts';

const clock = 'its clock';
const names = [clock, ...Object.keys(knownChannels).filter((name) => name !== 'time')];

interface ColumnTableProps {
  form: PlainInstrument['form'];
  /** The newest line that holds something. */
  line: string | undefined;
  change: (columns: readonly PlainColumn[]) => void;
}

/** What each column of a line is: named by hand, with its unit, and what it reads now. */
export function ColumnTable({ form, line, change }: ColumnTableProps) {
  const cells = line === undefined ? [] : (lineCells(form, line) ?? []);
  const set = (at: number, column: PlainColumn) =>
    change(form.columns.map((old, index) => (index === at ? column : old)));
  return (
    <table className={classes.columns}>
      <thead>
        <tr>
          <th>Column</th>
          <th>Says</th>
          <th>Is</th>
          <th>In</th>
          <th>Reads</th>
        </tr>
      </thead>
      <tbody>
        {form.columns.map((column, at) => (
          <tr key={at}>
            <td>{at + 1}</td>
            <td className={classes.cell}>{cells[at] ?? '–'}</td>
            <td>
              <Autocomplete
                aria-label={`What column ${at + 1} is`}
                placeholder="left out"
                size="sm"
                data={names}
                renderOption={({ option }) =>
                  option.value === clock ? clock : `${option.value} · ${channelLabel(option.value)}`
                }
                value={column.is === 'channel' ? column.name : column.is === 'time' ? clock : ''}
                onChange={(value) => set(at, columnNamed(value, column))}
              />
            </td>
            <td>
              {column.is !== 'nothing' && (
                <TextInput
                  aria-label={`Unit of column ${at + 1}`}
                  size="sm"
                  value={column.unit}
                  error={column.is === 'channel' && !unitFits(column.name, column.unit)}
                  onChange={(event) => set(at, withUnit(column, event.currentTarget.value))}
                />
              )}
            </td>
            <td className="number">{reads(column, cells[at], form.decimalComma)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function columnNamed(written: string, before: PlainColumn): PlainColumn {
  if (written.trim() === '') return { is: 'nothing' };
  if (written === clock) return { is: 'time', unit: 's' };
  const name = knownChannelNamed(written) ?? written;
  // The unit that the channel is kept in is proposed first; one that was read from the heading and fits is kept.
  const own = before.is === 'channel' && unitFits(name, before.unit) && before.unit !== '' ? before.unit : undefined;
  const kept = Object.hasOwn(knownChannels, name) ? knownChannels[name as KnownChannel].unit : '';
  return { is: 'channel', name, unit: own ?? kept };
}

function withUnit(column: PlainColumn, unit: string): PlainColumn {
  if (column.is === 'channel') return { ...column, unit };
  if (column.is !== 'time') return column;
  return { ...column, unit: unit.startsWith('m') ? 'ms' : unit.startsWith('µ') || unit.startsWith('u') ? 'µs' : 's' };
}

/** A cell in the unit that its channel is kept in. */
function reads(column: PlainColumn, cell: string | undefined, decimalComma: boolean): string {
  if (column.is === 'nothing' || cell === undefined) return '';
  const value = cellValue(cell, decimalComma);
  if (value === undefined) return 'no number';
  if (value === null) return 'nothing';
  if (column.is === 'time') return `${(value / perSecond[column.unit]).toFixed(3)} s`;
  if (!Object.hasOwn(knownChannels, column.name)) return `${plain(value)} ${column.unit}`;
  const convert = toChannelUnit(column.name as KnownChannel, column.unit);
  return convert ? `${plain(convert(value))} ${knownChannels[column.name as KnownChannel].unit}` : 'unit not known';
}

const plain = (value: number) => Number(value.toPrecision(6)).toLocaleString('en-GB');
