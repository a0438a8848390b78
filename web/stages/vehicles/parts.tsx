import { Button, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { VehicleWithAll } from '../../../contract/shop/vehicles.ts';
import brief from '../../ui/file-form.module.css';
import { RemoveButton } from '../../ui/remove-button.tsx';
import { entriesOf } from '../../state/entries.ts';

const knowledge = [
  { value: 'known', label: 'known' },
  { value: 'believed', label: 'believed' },
  { value: 'unknown', label: 'unknown' },
];

/** What is fitted, and how sure that is. */
export function Parts({ vehicle }: { vehicle: VehicleWithAll }) {
  const parts = entriesOf('vehicles', vehicle.id, 'parts');
  const [name, setName] = useState('');
  const [how, setHow] = useState<string | null>('believed');
  return (
    <section className={brief.section}>
      <h2 className="heading">Parts</h2>
      <ul className={brief.list}>
        {vehicle.parts.map((part) => (
          <li key={part.id} className={brief.entry} style={{ gridTemplateColumns: 'minmax(0, 1fr) 122px auto' }}>
            <p>{part.name}</p>
            <Select
              aria-label={`${part.name}: how well it is known`}
              data={knowledge}
              value={part.knowledge}
              allowDeselect={false}
              onChange={(value) => void parts.change(part.id, { knowledge: value })}
            />
            <RemoveButton what={part.name} onRemove={() => void parts.remove('Part', part.id)} />
          </li>
        ))}
      </ul>
      {vehicle.parts.length === 0 && (
        <p className={brief.quiet}>None yet. What was changed before it came here, and who has seen it?</p>
      )}
      <form
        className={brief.line}
        onSubmit={(event) => {
          event.preventDefault();
          void parts.add({ name, knowledge: how, note: '' }).then((stored) => stored && setName(''));
        }}
      >
        <TextInput
          aria-label="New part"
          placeholder="camshaft, 280°"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          style={{ flexBasis: 160 }}
        />
        <Select
          aria-label="How well it is known"
          data={knowledge}
          value={how}
          onChange={setHow}
          allowDeselect={false}
        />
        <Button type="submit" variant="default" disabled={name.trim() === ''}>
          Add
        </Button>
      </form>
    </section>
  );
}
