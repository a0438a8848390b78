import type { AirFile } from '../../contract/files/machine-and-air.ts';
import type { BayState } from '../../contract/bays/live.ts';
import type { Device } from '../devices/device.ts';
import type { NewRun } from '../../contract/bays/recorded-run.ts';

/** Air older than this is not taken for a run, ms. */
const holdsMs = 10 * 60_000;

/** The air of the bay, as its weather station tells it. */
export class BayAir {
  private latest: { air: AirFile; takenAt: Date; heardMs: number } | undefined;

  /** Takes a weather station's row. @returns false where it holds no whole reading */
  take(device: Device, row: Float64Array): boolean {
    const value = (name: string) =>
      row[1 + device.intake.channels.findIndex((channel) => channel.name === name)] ?? NaN;
    const air = {
      temperatureC: value('airTemperature'),
      pressureHpa: value('airPressure'),
      relativeHumidityPct: value('relativeHumidity'),
    };
    if (Object.values(air).some((figure) => Number.isNaN(figure))) return false;
    // What plays a day back gives that day's air.
    const began = device.hello.startedAt;
    const takenAt = began ? new Date(Date.parse(began) + 1000 * row[0]!) : new Date();
    this.latest = { air, takenAt, heardMs: Date.now() };
    return true;
  }

  /** As pages see it, however old. */
  state(): BayState['air'] {
    return this.latest ? { ...this.latest.air, takenAt: this.latest.takenAt.toISOString() } : null;
  }

  /** As a run that begins now takes it along; none once it is too old. */
  ofRun(): Pick<NewRun, 'air' | 'airTakenAt'> {
    const { latest } = this;
    const holds = latest !== undefined && Date.now() - latest.heardMs < holdsMs;
    return holds ? { air: latest.air, airTakenAt: latest.takenAt.toISOString() } : { air: null, airTakenAt: null };
  }
}
