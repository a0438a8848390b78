/** One logged quantity, a value for each time of its recording; NaN where nothing was read. */
export interface Channel {
  name: string;
  unit: string;
  values: Float64Array;
}

/** What instruments delivered, unaltered: `time` in s, strictly rising, and channels of the same length. */
export interface Recording {
  time: Float64Array;
  channels: Channel[];
}

/** The values of a channel, or undefined when the recording has none of that name. */
export function valuesOf(recording: Recording, name: string): Float64Array | undefined {
  return recording.channels.find((channel) => channel.name === name)?.values;
}
