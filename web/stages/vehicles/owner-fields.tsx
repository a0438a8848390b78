import type { VehicleWithAll } from '../../../contract/shop/vehicles.ts';
import { api } from '../../state/api.ts';
import { SavedField } from '../../ui/saved-field.tsx';
import brief from '../../ui/file-form.module.css';
import { VehicleWords } from './vehicle-field.tsx';

/** Whose car it is, and how it is called. */
export function OwnerFields({ vehicle }: { vehicle: VehicleWithAll }) {
  const { owner } = vehicle;
  return (
    <section className={brief.section}>
      <h2 className="heading">Owner and vehicle</h2>
      <div className={brief.fields}>
        <VehicleWords vehicle={vehicle} field="name" label="Called" />
        <div className={brief.pair}>
          <SavedField
            label="Owner"
            field="ownerName"
            value={vehicle.ownerName}
            revision={vehicle.revision}
            place={`vehicle/${vehicle.id}/owner`}
            save={(ownerName) => api.changeVehicle(vehicle.id, { ownerName })}
          />
          <VehicleWords vehicle={vehicle} field="plate" label="Plate" />
        </div>
        {owner && (
          <SavedField
            label="Contact"
            field="contact"
            placeholder="telephone, mail"
            value={owner.contact}
            revision={owner.revision}
            place={`owner/${owner.id}/contact`}
            save={(contact, revision) => api.changeOwner(owner.id, { contact, revision })}
          />
        )}
        <VehicleWords
          vehicle={vehicle}
          field="note"
          label="Remarks"
          placeholder="what to know before touching it"
          lines={3}
        />
      </div>
    </section>
  );
}
