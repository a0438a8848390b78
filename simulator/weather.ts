import type { Chance } from './chance.ts';

export const weatherChannels = [
  { name: 'airTemperature', unit: '°C' },
  { name: 'airPressure', unit: 'hPa' },
  { name: 'relativeHumidity', unit: '%' },
];

/** The cell's air, wandering slowly as air does. */
export class Weather {
  air: { temperatureC: number; pressureHpa: number; relativeHumidityPct: number };

  constructor(
    private readonly chance: Chance,
    start = { temperatureC: 21.4, pressureHpa: 1008.8, relativeHumidityPct: 46 },
  ) {
    this.air = { ...start };
  }

  /** Lets seconds pass. */
  pass(seconds: number): void {
    const wander = Math.sqrt(seconds);
    this.air = {
      temperatureC: clamp(this.air.temperatureC + this.chance.normal(0.006) * wander, 12, 34),
      pressureHpa: clamp(this.air.pressureHpa + this.chance.normal(0.004) * wander, 980, 1030),
      relativeHumidityPct: clamp(this.air.relativeHumidityPct + this.chance.normal(0.02) * wander, 25, 80),
    };
  }

  /** Pressure less vapour, hPa, by Magnus' formula. */
  get dryHpa(): number {
    const { temperatureC, pressureHpa, relativeHumidityPct } = this.air;
    return (
      pressureHpa - (relativeHumidityPct / 100) * 6.112 * Math.exp((17.62 * temperatureC) / (243.12 + temperatureC))
    );
  }

  read(): number[] {
    const { temperatureC, pressureHpa, relativeHumidityPct } = this.air;
    return [Number(temperatureC.toFixed(1)), Number(pressureHpa.toFixed(1)), Number(relativeHumidityPct.toFixed(0))];
  }
}

function clamp(value: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, value));
}
