import type { Vehicle } from '../../../contract/shop/vehicles.ts';
import { api } from '../../state/api.ts';
import { SavedField, SavedNumber } from '../../ui/saved-field.tsx';

type Words = 'name' | 'plate' | 'engine' | 'fuelSystem' | 'gearbox' | 'tyres' | 'note';
type Numbers =
  | ('tankLitres' | 'finalDrive' | 'factoryKw' | 'factoryNm')
  | ('injectors' | 'injectorFlowCcMin' | 'injectorRatedKpa' | 'pumpFlowLh' | 'pumpRatedKpa')
  | 'displacementL'
  | ('massKg' | 'dragAreaM2' | 'rollingCoefficient');

/** A field of a vehicle that stores itself when it is left. */
export function VehicleWords({
  vehicle,
  field,
  label,
  placeholder,
  lines,
}: {
  vehicle: Vehicle;
  field: Words;
  label: string;
  placeholder?: string;
  lines?: number;
}) {
  return (
    <SavedField
      label={label}
      field={field}
      value={vehicle[field]}
      revision={vehicle.revision}
      place={`vehicle/${vehicle.id}/${field}`}
      save={(text, revision) => api.changeVehicle(vehicle.id, { [field]: text, revision })}
      {...(placeholder ? { placeholder } : {})}
      {...(lines ? { lines } : {})}
    />
  );
}

export function VehicleNumber({
  vehicle,
  field,
  label,
  unit,
  placeholder,
}: {
  vehicle: Vehicle;
  field: Numbers;
  label: string;
  unit?: string;
  placeholder?: string;
}) {
  return (
    <SavedNumber
      label={label}
      field={field}
      value={vehicle[field] ?? null}
      revision={vehicle.revision}
      place={`vehicle/${vehicle.id}/${field}`}
      save={(value, revision) => api.changeVehicle(vehicle.id, { [field]: value, revision })}
      {...(unit ? { unit } : {})}
      {...(placeholder ? { placeholder } : {})}
    />
  );
}
