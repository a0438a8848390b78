import { NativeSelect, TextInput } from '@mantine/core';
import type { LogMapping } from '../../../../core/exchange/loggers/log-mapping.ts';
import {
  knownChannels,
  speedChannels,
  torqueChannels,
  type KnownChannel,
} from '../../../../core/recording/channels.ts';
import classes from './logger-file-form.module.css';

interface MappingTableProps {
  columns: readonly { heading: string; unit: string; first: readonly number[] }[];
  mapping: LogMapping;
  onChange: (mapping: LogMapping) => void;
}

const dynos: readonly string[] = [...speedChannels, ...torqueChannels];
/** What a logger's column can be; the dyno's own channels are the dyno's. */
const choices = [
  { value: '', label: 'left out' },
  ...Object.entries(knownChannels)
    .filter(([name]) => !dynos.includes(name))
    .map(([value, { label }]) => ({ value, label })),
];

/** Each column with what stood in it, and what it is. */
export function MappingTable({ columns, mapping, onChange }: MappingTableProps) {
  const set = (heading: string, change: Partial<LogMapping['columns'][number]>) =>
    onChange({
      ...mapping,
      columns: mapping.columns.map((column) => (column.heading === heading ? { ...column, ...change } : column)),
    });
  return (
    <div className={classes.scroll}>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Column</th>
            <th>What stood in it</th>
            <th>Is</th>
            <th>In</th>
          </tr>
        </thead>
        <tbody>
          {columns.map(({ heading, unit, first }) => {
            const column = mapping.columns.find((one) => one.heading === heading);
            const channel = column?.channel ?? '';
            const own = channel !== '' && !(channel in knownChannels);
            return (
              <tr key={heading}>
                <td>{heading}</td>
                <td className="number soft">
                  {first
                    .map((value) => (Number.isNaN(value) ? '–' : String(Math.round(1000 * value) / 1000)))
                    .join('  ')}
                </td>
                <td>
                  <NativeSelect
                    aria-label={`What ${heading} is`}
                    data={[...choices, { value: own ? channel : heading, label: 'a channel of its own' }]}
                    value={channel}
                    onChange={(event) => {
                      const chosen = event.currentTarget.value;
                      const usual = chosen in knownChannels ? knownChannels[chosen as KnownChannel].unit : '';
                      set(heading, { channel: chosen || null, unit: unit || usual });
                    }}
                  />
                </td>
                <td>
                  <TextInput
                    aria-label={`Unit of ${heading}`}
                    className={classes.unit}
                    value={column?.unit ?? ''}
                    onChange={(event) => set(heading, { unit: event.currentTarget.value })}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
