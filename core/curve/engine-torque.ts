import { rpmPerRadS } from '../units/units.ts';

/** Engine-referred torque, N·m, for a power in kW at an engine speed. */
export function engineTorqueNm(powerKw: number, rpm: number): number {
  return (powerKw * 1000 * rpmPerRadS) / rpm;
}
