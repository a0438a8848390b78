import type { ConfigureMessage } from '../contract/bench-link.ts';
import { Absorber } from './absorber.ts';
import { carNamed, engineAt, type Car, type EngineState } from './car.ts';
import { Chance } from './chance.ts';
import { Driver } from './driver.ts';
import { Faults } from './faults.ts';
import { Heat } from './heat.ts';
import { machines, type Machine } from './machine.ts';
import type { Weather } from './weather.ts';

/** What the car reports, whatever dyno it stands on. */
const carChannels = [
  { name: 'engineSpeed', unit: 'rpm' },
  { name: 'throttle', unit: '%' },
  { name: 'lambda', unit: '–' },
  { name: 'ignitionAdvance', unit: '°BTDC' },
  { name: 'knockRetard', unit: '°' },
  { name: 'intakeTemperature', unit: '°C' },
  { name: 'coolantTemperature', unit: '°C' },
  { name: 'oilTemperature', unit: '°C' },
  { name: 'oilPressure', unit: 'kPa' },
  { name: 'fuelPressure', unit: 'kPa' },
  { name: 'injectorDuty', unit: '%' },
  { name: 'batteryVoltage', unit: 'V' },
];

/** All channels of a stand-in dyno with a car on it. */
export function channelsOf(machine: Machine): { name: string; unit: string }[] {
  return [...machine.channels, ...carChannels];
}

const stepS = 0.001;
/** Driveline: how stiff between engine and drum (as a natural frequency of the engine on it, Hz) and how damped. */
const shuffleHz = 5.5;
const shuffleDamping = 0.14;
/** Brakes for each kg·m² that turns, N·m. */
const brakeNmPerKgM2 = 22;

/** One hub takes a little more than the other, and its tyreless wheel turns a little slower, by this share. */
const unevenness = 0.012;

/** Car, driveline, drum or hubs and their load, stepped a millisecond at a time. */
export class StandInDyno {
  readonly driver: Driver;
  readonly faults = new Faults();
  private car: Car = carNamed('');
  private items: ConfigureMessage['items'] = [];
  private readonly heat = new Heat();
  private readonly absorber: Absorber | undefined;
  private drumSpeed: number;
  private engineSpeed: number;
  private twist = 0;
  private engine: EngineState | undefined;
  /** This pull's own luck: no two are quite alike. */
  private luck = { scale: 1, tilt: 0 };
  private timeS = 0;

  constructor(
    private readonly weather: Weather,
    private readonly chance: Chance = new Chance(1),
    readonly machine: Machine = machines['inertia-roller'],
  ) {
    this.driver = new Driver(() => this.newLuck());
    this.driver.drives(this.car);
    this.drumSpeed = this.radS(this.car.idleRpm) / this.ratio;
    if (machine.rampRpmPerS) {
      this.absorber = new Absorber(this.radS(machine.rampRpmPerS) / this.ratio, machine.profile.loadCellLagS!);
    }
    this.engineSpeed = this.drumSpeed;
  }

  configure(message: ConfigureMessage): void {
    const car = carNamed(message.vehicle);
    if (car !== this.car) {
      this.car = car;
      this.drumSpeed = this.radS(car.idleRpm) / this.ratio;
      this.engineSpeed = this.drumSpeed;
      this.twist = 0;
    }
    this.items = message.items;
    this.driver.drives(car);
  }

  /** Lets time pass. @param seconds a multiple of a millisecond */
  pass(seconds: number): void {
    const steps = Math.round(seconds / stepS);
    for (let step = 0; step < steps; step++) this.step();
  }

  /** Time in which nothing but heat happens, as between pulls. */
  rest(seconds: number): void {
    this.timeS += seconds;
    for (let passed = 0; passed < seconds; passed++) this.heat.pass(1, 4, this.weather.air.temperatureC);
  }

  /** Engine speed as a share of the pull's top. */
  private get topShare(): number {
    return (this.engineSpeed * this.ratio * 60) / (2 * Math.PI) / this.car.sweepToRpm;
  }

  /** Engine ÷ drum speed without creep. */
  private get ratio(): number {
    return this.car.ratio * this.machine.ratioFactor;
  }

  /** What the instrument reads now, in the order of `channelsOf`. */
  read(): number[] {
    const inlet = this.heat.inletC(this.weather.air.temperatureC) + this.faults.soakC;
    // Tyres creep under load; bolted hubs do not.
    const { throttle } = this.driver;
    const hub = this.machine.profile.kind === 'hub';
    const creep = hub ? 1 : 1 + 0.011 * Math.max(0, throttle) + this.faults.slip(this.topShare, throttle);
    const rpm = ((this.drumSpeed * this.ratio * 60) / (2 * Math.PI)) * creep;
    const noisy = (value: number, deviation: number, digits: number) =>
      Number((value + this.chance.normal(deviation)).toFixed(digits));
    return [
      ...this.motion(noisy),
      Math.round((rpm + this.chance.normal(2)) / 5) * 5,
      noisy(this.driver.throttle * 100, 0.2, 1),
      noisy(throttle > 0.8 ? (this.engine?.lambda ?? 1) + this.faults.lambda(this.topShare) : 1, 0.004, 3),
      noisy(this.engine?.ignitionBtdc ?? 10, 0.1, 1),
      Number((this.driver.throttle > 0.8 ? (this.engine?.knockRetardDeg ?? 0) : 0).toFixed(1)),
      noisy(inlet, 0.1, 1),
      noisy(this.heat.coolantC, 0.1, 1),
      noisy(this.heat.oilC, 0.1, 1),
      noisy(130 + 300 * this.topShare, 4, 0),
      noisy(350 - (throttle > 0.8 ? this.faults.pumpShortKpa(this.topShare) : 0), 2, 0),
      noisy(throttle > 0.8 ? 14 + 58 * this.topShare : 6, 0.4, 1),
      noisy(this.faults.batteryV, 0.03, 2),
    ];
  }

  /** Speeds and loads of drum or hubs. */
  private motion(noisy: (value: number, deviation: number, digits: number) => number): number[] {
    const load = this.absorber?.readNm ?? 0;
    switch (this.machine.profile.kind) {
      case 'inertia-roller':
        return [noisy(this.drumSpeed, 0.01, 4)];
      case 'loaded-roller':
        return [noisy(this.drumSpeed, 0.012, 4), noisy(load, 1.2, 2)];
      case 'hub':
        return [
          noisy(this.drumSpeed * (1 + unevenness / 10), 0.01, 4),
          noisy(this.drumSpeed * (1 - unevenness / 10), 0.01, 4),
          noisy((load / 2) * (1 + unevenness), 0.9, 2),
          noisy((load / 2) * (1 - unevenness), 0.9, 2),
        ];
    }
  }

  get time(): number {
    return this.timeS;
  }

  private step(): void {
    const { car, heat, weather } = this;
    const { air } = weather;
    const rpm = (this.engineSpeed * this.ratio * 60) / (2 * Math.PI);
    this.driver.step(stepS, rpm);
    const inlet = heat.inletC(air.temperatureC) + this.faults.soakC;
    this.engine = engineAt(
      car,
      this.items,
      Math.max(rpm, 600),
      { temperatureC: air.temperatureC, dryHpa: weather.dryHpa },
      inlet,
      this.faults.knockC,
    );
    const luck = this.luck.scale * (1 + this.luck.tilt * ((rpm - car.sweepFromRpm) / car.sweepToRpm - 0.35));
    const drag = 0.07 * car.plainTorqueNm * (rpm / car.sweepToRpm + 0.3);
    const left = this.faults.torqueLeft(this.topShare, this.driver.throttle, stepS);
    const crank = this.driver.throttle * left * (this.engine.torqueNm * luck + drag) - drag;
    const slip = this.machine.profile.kind === 'hub' ? 0 : this.faults.slip(this.topShare, this.driver.throttle);
    const atDrum = crank * this.ratio * (crank > 0 ? car.efficiency * (1 - 2 * slip) : 1);
    const inertia = car.engineInertiaKgM2 * this.ratio ** 2;
    const stiffness = inertia * (2 * Math.PI * shuffleHz) ** 2;
    const damping = 2 * shuffleDamping * Math.sqrt(stiffness * inertia);
    const shaft = stiffness * this.twist + damping * (this.engineSpeed - this.drumSpeed);
    const { profile } = this.machine;
    const { aNm, bNmPerRadS, cNmPerRadS2 } = profile.parasitic;
    // A profile's losses are those of one hub; there are two.
    const sides = profile.kind === 'hub' ? 2 : 1;
    const loss = sides * (aNm + bNmPerRadS * this.drumSpeed + cNmPerRadS2 * this.drumSpeed ** 2);
    this.absorber?.step(stepS, this.drumSpeed, this.driver.pulling);
    const load = this.absorber?.torqueNm ?? 0;
    const brake = this.driver.braking ? brakeNmPerKgM2 * this.machine.turningKgM2 : 0;
    // The wheels turn with the drum: they take their share of torque before the drum sees any.
    this.engineSpeed += ((atDrum - shaft) / inertia) * stepS;
    const wheels = car.wheelInertiaKgM2 * this.machine.ratioFactor ** 2;
    this.drumSpeed += ((shaft - loss - load - brake) / (this.machine.turningKgM2 + wheels)) * stepS;
    this.drumSpeed = Math.max(0.5, this.drumSpeed);
    this.twist += (this.engineSpeed - this.drumSpeed) * stepS;
    this.timeS += stepS;
    heat.pass(stepS, Math.max(2, (crank * this.radS(rpm)) / 1000), air.temperatureC);
  }

  private newLuck(): void {
    this.faults.begin();
    this.luck = { scale: 1 + this.chance.normal(0.0022), tilt: this.chance.normal(0.003) };
  }

  private radS(rpm: number): number {
    return (rpm * 2 * Math.PI) / 60;
  }
}
