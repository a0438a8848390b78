import { useOwnUnits } from '../../units/use-own-units.tsx';
import { useState } from 'react';
import { TextInput } from '@mantine/core';
import type { VehicleWithAll } from '../../../contract/shop/vehicles.ts';
import { rpmPerKmh, rollingShare, tyreCircumferenceM } from '../../../core/dyno/ratio.ts';
import { roadDefaults } from '../../../core/road/road-car.ts';
import { api } from '../../state/api.ts';
import { numberOf, SavedField } from '../../ui/saved-field.tsx';
import brief from '../../ui/file-form.module.css';
import { VehicleNumber, VehicleWords } from './vehicle-field.tsx';

/** Reads `1st 3.45, 2nd 1.95`. @returns undefined where it cannot be read */
export function readGears(text: string): { gear: string; ratio: number }[] | undefined {
  const parts = text
    .split(/[;\n]|,\s+/)
    .map((part) => part.trim())
    .filter(Boolean);
  const gears = parts.map((part) => {
    const found = /^(\S.*?)[\s:=]+(\d+(?:[.,]\d+)?)$/.exec(part);
    return found && { gear: found[1]!, ratio: Number(found[2]!.replace(',', '.')) };
  });
  return gears.every((gear) => gear !== null && gear.ratio > 0)
    ? (gears as { gear: string; ratio: number }[])
    : undefined;
}

/** What the report assumes where nothing is written. */
const assumed = (value: number) => `else ${value}`;

/** Tyres and ratios, and the engine speed that they make of a road speed. */
export function RatioFields({ vehicle }: { vehicle: VehicleWithAll }) {
  const [speed, setSpeed] = useState('100');
  const circumference = tyreCircumferenceM(vehicle.tyres);
  const { finalDrive } = vehicle;
  const told = useOwnUnits().told('km/h');
  const typed = numberOf(speed);
  const kmh = typeof typed === 'number' ? told.kept(typed) : typed;
  return (
    <section className={brief.section}>
      <h2 className="heading">Tyres and ratios</h2>
      <div className={brief.fields}>
        <div className={brief.pair}>
          <VehicleWords vehicle={vehicle} field="tyres" label="Driven tyres" placeholder="205/55 R16" />
          <VehicleNumber vehicle={vehicle} field="finalDrive" label="Final drive" unit=": 1" />
        </div>
        <SavedField
          label="Gears"
          field="gears"
          placeholder="1st 3.45, 2nd 1.95, 3rd 1.36, 4th 1.03"
          value={vehicle.gears.map(({ gear, ratio }) => `${gear} ${ratio}`).join(', ')}
          revision={vehicle.revision}
          place={`vehicle/${vehicle.id}/gears`}
          refuse={(text) => (readGears(text) ? undefined : 'Write each gear with its ratio, such as “4th 1.03”.')}
          save={(text, revision) => api.changeVehicle(vehicle.id, { gears: readGears(text), revision })}
        />
        <div className={brief.triple}>
          <VehicleNumber
            vehicle={vehicle}
            field="massKg"
            label="Mass with driver"
            unit="kg"
            placeholder={assumed(roadDefaults.massKg)}
          />
          <VehicleNumber
            vehicle={vehicle}
            field="dragAreaM2"
            label="Drag area"
            unit="m²"
            placeholder={assumed(roadDefaults.dragAreaM2)}
          />
          <VehicleNumber
            vehicle={vehicle}
            field="rollingCoefficient"
            label="Rolling drag"
            placeholder={assumed(roadDefaults.rollingCoefficient)}
          />
        </div>
        {circumference === undefined && vehicle.tyres && (
          <p className={brief.quiet}>
            The tyre’s size cannot be read; written as 205/55 R16 it gives engine speed from road speed.
          </p>
        )}
        {circumference !== undefined && finalDrive !== null && vehicle.gears.length > 0 && (
          <>
            <TextInput
              label="Engine speed at"
              inputMode="decimal"
              value={speed}
              onChange={(event) => setSpeed(event.currentTarget.value)}
              rightSection={<span className="soft">{told.unit}</span>}
              rightSectionWidth={46}
            />
            <ul className={brief.list}>
              {vehicle.gears.map(({ gear, ratio }) => {
                const perKmh = rpmPerKmh(ratio, finalDrive, circumference);
                return (
                  <li key={gear} className={brief.entry}>
                    <p>
                      {gear}{' '}
                      <small>
                        {(perKmh / told.of(1)).toFixed(1)} rpm per {told.unit}
                      </small>
                    </p>
                    <span className="number">
                      {typeof kmh === 'number' &&
                        `${(Math.round((perKmh * kmh) / 10) * 10).toLocaleString('en-GB')} rpm`}
                    </span>
                  </li>
                );
              })}
            </ul>
            <p className={brief.quiet}>
              Estimate: rolling circumference {circumference.toFixed(2)} m, {Math.round(100 * (1 - rollingShare))} %
              less than the free tyre. A calibrated ratio comes first.
            </p>
          </>
        )}
      </div>
    </section>
  );
}
