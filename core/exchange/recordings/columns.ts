import {
  knownChannelNamed,
  knownChannels,
  neededChannels,
  roadSpeedChannel,
  speedChannels,
  toChannelUnit,
  type KnownChannel,
} from '../../recording/channels.ts';
import { Refusal } from '../../refusal.ts';
import type { UnitName } from '../../units/units.ts';

/** What a column of a file becomes: a channel's name, the unit it is kept in, and how its numbers get there. */
export interface Column {
  index: number;
  name: string;
  unit: string;
  needed: boolean;
  toChannelUnit(value: number): number;
}

/**
 * Reads the header of a recording: `name [unit]` a column.
 *
 * @returns the columns to keep, that of time among them, and remarks about what was taken otherwise than written
 * @throws Refusal when there is no time or no speed, or a needed channel has a unit that is not known
 */
export function columnsOf(header: readonly string[]): { columns: Column[]; time: Column; remarks: string[] } {
  const remarks: string[] = [];
  const columns: Column[] = [];
  header.forEach((heading, index) => {
    const { name, unit } = headingParts(heading);
    if (name === '') return;
    const known = knownChannelNamed(name);
    const column = known ? knownColumn(index, known, unit, remarks) : customColumn(index, name, unit, remarks);
    if (columns.some((earlier) => earlier.name === column.name)) {
      remarks.push(`A second column "${column.name}" was left out.`);
      return;
    }
    columns.push(column);
  });
  const has = (name: KnownChannel) => columns.some((column) => column.name === name);
  const time = columns.find((column) => column.name === 'time');
  if (!time) throw new Refusal('The file has no "time" column; one is needed, such as "time [s]".');
  if (!speedChannels.some(has) && !has(roadSpeedChannel)) {
    throw new Refusal(
      'The file has no speed: a "rollerSpeed", "hubSpeed" or "surfaceSpeed" column is needed, such as "rollerSpeed [rad/s]"; or a "roadSpeed" for a drive on the road.',
    );
  }
  return { columns, time, remarks };
}

/** `name [unit]` or `name (unit)`: the last brackets, read in one pass however long the heading is. */
function headingParts(heading: string): { name: string; unit: string | undefined } {
  const text = heading.trim();
  const last = text.length - 1;
  if (text[last] !== ']' && text[last] !== ')') return { name: text, unit: undefined };
  const after = Math.max(text.lastIndexOf(']', last - 1), text.lastIndexOf(')', last - 1)) + 1;
  const openings = [text.indexOf('[', after), text.indexOf('(', after)].filter((at) => at >= 0);
  if (openings.length === 0) return { name: text, unit: undefined };
  const from = Math.min(...openings);
  return { name: text.slice(0, from).trim(), unit: text.slice(from + 1, last).trim() };
}

function customColumn(index: number, name: string, unit: string | undefined, remarks: string[]): Column {
  remarks.push(`The column "${name}" is not a channel that Suvok knows; it was kept as it is.`);
  return { index, name, unit: unit ?? '', needed: false, toChannelUnit: (value) => value };
}

function knownColumn(index: number, name: KnownChannel, written: string | undefined, remarks: string[]): Column {
  const unit: UnitName = knownChannels[name].unit;
  const needed = neededChannels.includes(name);
  if (written === undefined) {
    if (unit !== '–') remarks.push(`The column "${name}" names no unit; ${unit} was taken.`);
    return { index, name, unit, needed, toChannelUnit: (value) => value };
  }
  const conversion = toChannelUnit(name, written);
  if (conversion) return { index, name, unit, needed, toChannelUnit: conversion };
  if (needed) {
    throw new Refusal(
      `The unit "${written}" of the column "${name}" is not known; write it in ${unit} or a unit of the same kind.`,
    );
  }
  return customColumn(index, name, written, remarks);
}
