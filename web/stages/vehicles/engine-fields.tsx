import { Select } from '@mantine/core';
import type { VehicleWithAll } from '../../../contract/shop/vehicles.ts';
import type { ReactNode } from 'react';
import { burnsFuel } from '../../../core/engine/engine-kind.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import brief from '../../ui/file-form.module.css';
import { VehicleNumber, VehicleWords } from './vehicle-field.tsx';

const choices = {
  ignition: [
    { value: 'spark', label: 'spark ignition' },
    { value: 'compression', label: 'compression (diesel)' },
    { value: 'electric', label: 'none: electric drive' },
  ],
  induction: [
    { value: 'none', label: 'naturally aspirated' },
    { value: 'turbo', label: 'turbo' },
    { value: 'supercharger', label: 'supercharger' },
    { value: 'both', label: 'turbo and supercharger' },
  ],
  fuelRegulation: [
    { value: 'manifold', label: 'against the manifold' },
    { value: 'constant', label: 'one pressure (returnless)' },
    { value: 'target', label: 'to a target' },
  ],
  drivenAxle: [
    { value: 'front', label: 'front' },
    { value: 'rear', label: 'rear' },
    { value: 'all', label: 'all' },
  ],
};

/** Engine, fuel and drive: what decides which limits, checks and standards suit it. */
export function EngineFields({ vehicle }: { vehicle: VehicleWithAll }) {
  const change = useChange((fields: object) => api.changeVehicle(vehicle.id, fields));
  const burns = burnsFuel(vehicle.ignition);
  const choice = (field: keyof typeof choices, label: string) => (
    <Select
      label={label}
      placeholder="not known"
      clearable
      data={choices[field]}
      value={vehicle[field]}
      onChange={(value) => change.mutate({ [field]: value })}
    />
  );
  return (
    <section className={brief.section}>
      <h2 className="heading">Engine and drive</h2>
      <div className={brief.fields}>
        <VehicleWords vehicle={vehicle} field="engine" label="Engine" placeholder="2.0 four-cylinder, 16 valves" />
        <div className={brief.pair}>
          {choice('ignition', 'Ignition')}
          {burns && choice('induction', 'Induction')}
        </div>
        {burns && <FuelFields vehicle={vehicle} regulation={choice('fuelRegulation', 'Fuel pressure held')} />}
        <div className={brief.pair}>
          {burns && <VehicleNumber vehicle={vehicle} field="displacementL" label="Displacement" unit="L" />}
          {choice('drivenAxle', 'Driven axle')}
        </div>
        <VehicleWords vehicle={vehicle} field="gearbox" label="Gearbox" placeholder="5-speed manual" />
        <div className={brief.pair}>
          <VehicleNumber vehicle={vehicle} field="factoryKw" label="Factory rating" unit="kW" />
          <VehicleNumber vehicle={vehicle} field="factoryNm" label="Factory torque" unit="N·m" />
        </div>
        <p className={brief.quiet}>A factory rating is one at the crank; it is for orientation and never a baseline.</p>
      </div>
    </section>
  );
}

/** What brings the fuel, and how much of it. */
function FuelFields({ vehicle, regulation }: { vehicle: VehicleWithAll; regulation: ReactNode }) {
  return (
    <>
      <VehicleWords
        vehicle={vehicle}
        field="fuelSystem"
        label="Fuel system"
        placeholder="port injection, 440 cm³/min, 300 kPa"
      />
      <div className={brief.pair}>
        {regulation}
        <VehicleNumber vehicle={vehicle} field="tankLitres" label="Tank" unit="L" />
      </div>
      <div className={brief.triple}>
        <VehicleNumber vehicle={vehicle} field="injectors" label="Injectors" />
        <VehicleNumber vehicle={vehicle} field="injectorFlowCcMin" label="each, cm³/min" />
        <VehicleNumber vehicle={vehicle} field="injectorRatedKpa" label="rated at" unit="kPa" />
      </div>
      <div className={brief.pair}>
        <VehicleNumber vehicle={vehicle} field="pumpFlowLh" label="Fuel pump gives" unit="L/h" />
        <VehicleNumber vehicle={vehicle} field="pumpRatedKpa" label="rated at" unit="kPa" />
      </div>
    </>
  );
}
