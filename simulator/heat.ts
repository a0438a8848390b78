/** The car's temperatures: they rise with work done and fall back towards what fan and thermostat hold. */
export class Heat {
  coolantC = 88;
  oilC = 92;
  /** What the bay under the bonnet adds to the inlet, °C. */
  soakC = 7;

  /** @param stepS time that passes @param powerKw work done meanwhile, as power */
  pass(stepS: number, powerKw: number, ambientC: number): void {
    this.soakC += stepS * (powerKw / 210 - (this.soakC - 3) / 260);
    this.coolantC += stepS * (powerKw / 260 - (this.coolantC - 88) / 110);
    this.oilC += stepS * (powerKw / 230 - (this.oilC - Math.max(85, ambientC + 68)) / 420);
  }

  /** As it is after a night with the engine off. */
  standOvernight(ambientC: number): void {
    this.coolantC = this.oilC = ambientC + 1;
    this.soakC = 0;
  }

  inletC(ambientC: number): number {
    return ambientC + 4 + this.soakC;
  }
}
