import type { ConfigureMessage } from '../contract/bench-link.ts';
import type { DynoFile } from '../contract/files.ts';
import { carNamed, engineAt, type Car, type EngineState } from './car.ts';
import { Chance } from './chance.ts';
import { Driver } from './driver.ts';
import { Heat } from './heat.ts';
import type { Weather } from './weather.ts';

/** The stand-in inertia roller, as it describes itself. */
export const rollerProfile: DynoFile = {
  kind: 'inertia-roller',
  inertiaKgM2: 58,
  radiusM: 0.26,
  parasitic: { aNm: 5.5, bNmPerRadS: 0.05, cNmPerRadS2: 0.00055 },
};

export const rollerChannels = [
  { name: 'rollerSpeed', unit: 'rad/s' },
  { name: 'engineSpeed', unit: 'rpm' },
  { name: 'throttle', unit: '%' },
  { name: 'lambda', unit: '–' },
  { name: 'ignitionAdvance', unit: '°BTDC' },
  { name: 'knockRetard', unit: '°' },
  { name: 'intakeTemperature', unit: '°C' },
  { name: 'coolantTemperature', unit: '°C' },
  { name: 'oilTemperature', unit: '°C' },
];

const stepS = 0.001;
/** Driveline: how stiff between engine and drum (as a natural frequency of the engine on it, Hz) and how damped. */
const shuffleHz = 5.5;
const shuffleDamping = 0.14;
const brakeNm = 1300;

/** Car, driveline and drum, stepped a millisecond at a time. */
export class Roller {
  readonly driver: Driver;
  private car: Car = carNamed('');
  private items: ConfigureMessage['items'] = [];
  private readonly heat = new Heat();
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
  ) {
    this.driver = new Driver(() => this.newLuck());
    this.driver.drives(this.car);
    this.drumSpeed = this.radS(this.car.idleRpm) / this.car.ratio;
    this.engineSpeed = this.drumSpeed;
  }

  configure(message: ConfigureMessage): void {
    const car = carNamed(message.vehicle);
    if (car !== this.car) {
      this.car = car;
      this.drumSpeed = this.radS(car.idleRpm) / car.ratio;
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

  /** What the instrument reads now, in the order of `rollerChannels`. */
  read(): number[] {
    const inlet = this.heat.inletC(this.weather.air.temperatureC);
    const creep = 1 + 0.011 * Math.max(0, this.driver.throttle);
    const rpm = ((this.drumSpeed * this.car.ratio * 60) / (2 * Math.PI)) * creep;
    const noisy = (value: number, deviation: number, digits: number) =>
      Number((value + this.chance.normal(deviation)).toFixed(digits));
    return [
      noisy(this.drumSpeed, 0.01, 4),
      Math.round((rpm + this.chance.normal(2)) / 5) * 5,
      noisy(this.driver.throttle * 100, 0.2, 1),
      noisy(this.driver.throttle > 0.8 ? (this.engine?.lambda ?? 1) : 1, 0.004, 3),
      noisy(this.engine?.ignitionBtdc ?? 10, 0.1, 1),
      Number((this.driver.throttle > 0.8 ? (this.engine?.knockRetardDeg ?? 0) : 0).toFixed(1)),
      noisy(inlet, 0.1, 1),
      noisy(this.heat.coolantC, 0.1, 1),
      noisy(this.heat.oilC, 0.1, 1),
    ];
  }

  get time(): number {
    return this.timeS;
  }

  private step(): void {
    const { car, heat, weather } = this;
    const { air } = weather;
    const rpm = (this.engineSpeed * car.ratio * 60) / (2 * Math.PI);
    this.driver.step(stepS, rpm);
    const inlet = heat.inletC(air.temperatureC);
    this.engine = engineAt(
      car,
      this.items,
      Math.max(rpm, 600),
      { temperatureC: air.temperatureC, dryHpa: weather.dryHpa },
      inlet,
    );
    const luck = this.luck.scale * (1 + this.luck.tilt * ((rpm - car.sweepFromRpm) / car.sweepToRpm - 0.35));
    const drag = 0.07 * car.plainTorqueNm * (rpm / car.sweepToRpm + 0.3);
    const crank = this.driver.throttle * (this.engine.torqueNm * luck + drag) - drag;
    const atDrum = crank * car.ratio * (crank > 0 ? car.efficiency : 1);
    const inertia = car.engineInertiaKgM2 * car.ratio ** 2;
    const stiffness = inertia * (2 * Math.PI * shuffleHz) ** 2;
    const damping = 2 * shuffleDamping * Math.sqrt(stiffness * inertia);
    const shaft = stiffness * this.twist + damping * (this.engineSpeed - this.drumSpeed);
    const { aNm, bNmPerRadS, cNmPerRadS2 } = rollerProfile.parasitic;
    const loss = aNm + bNmPerRadS * this.drumSpeed + cNmPerRadS2 * this.drumSpeed ** 2;
    const brake = this.driver.braking ? brakeNm : 0;
    // The wheels turn with the drum: they take their share of torque before the drum sees any.
    this.engineSpeed += ((atDrum - shaft) / inertia) * stepS;
    this.drumSpeed += ((shaft - loss - brake) / (rollerProfile.inertiaKgM2 + car.wheelInertiaKgM2)) * stepS;
    this.drumSpeed = Math.max(0.5, this.drumSpeed);
    this.twist += (this.engineSpeed - this.drumSpeed) * stepS;
    this.timeS += stepS;
    heat.pass(stepS, Math.max(2, (crank * this.radS(rpm)) / 1000), air.temperatureC);
  }

  private newLuck(): void {
    this.luck = { scale: 1 + this.chance.normal(0.0022), tilt: this.chance.normal(0.003) };
  }

  private radS(rpm: number): number {
    return (rpm * 2 * Math.PI) / 60;
  }
}
