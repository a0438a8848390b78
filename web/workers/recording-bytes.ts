import { z } from 'zod';
import type { Recording } from '../../core/recording/recording.ts';

const headerForm = z.object({
  samples: z.int().nonnegative(),
  channels: z.array(z.object({ name: z.string(), unit: z.string() })),
});

/**
 * A recording out of the bytes that the server sends (server/routes/recording-bytes.ts).
 * @throws RangeError when the bytes are cut short
 */
export function recordingFromBytes(bytes: ArrayBuffer): Recording {
  const headerLength = new DataView(bytes).getUint32(0, true);
  const { samples, channels } = headerForm.parse(
    JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 4, headerLength))),
  );
  const column = (index: number) => new Float64Array(bytes, 4 + headerLength + index * samples * 8, samples);
  return { time: column(0), channels: channels.map((channel, index) => ({ ...channel, values: column(index + 1) })) };
}
