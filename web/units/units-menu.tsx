import { ActionIcon, Button, Group, Modal, SegmentedControl, Stack } from '@mantine/core';
import { IconRuler2 } from '@tabler/icons-react';
import { useState } from 'react';
import { unitChoices, unitKinds, unitSets, type UnitKind, type Units } from '../../core/units/told-units.ts';
import { useAccount } from '../state/account.ts';
import { chooseUnits, useUnits } from './use-own-units.tsx';
import classes from './units-menu.module.css';

const kindWords: Record<UnitKind, string> = {
  power: 'Power',
  torque: 'Torque',
  pressure: 'Boost, oil, fuel and tyres',
  airPressure: 'Air pressure',
  temperature: 'Temperature',
  speed: 'Road speed',
  volume: 'Fuel',
  mixture: 'Mixture',
};

/** What quantities are told in, everywhere and for this person alone. */
export function UnitsMenu() {
  const [opened, setOpened] = useState(false);
  return (
    <>
      <ActionIcon
        variant="subtle"
        color="gray"
        size={40}
        aria-label="Units"
        title="Units"
        onClick={() => setOpened(true)}
      >
        <IconRuler2 size={18} />
      </ActionIcon>
      <Modal opened={opened} onClose={() => setOpened(false)} title="Units" size="md">
        <UnitsChoice />
      </Modal>
    </>
  );
}

function UnitsChoice() {
  const units = useUnits();
  const me = useAccount()?.me;
  return (
    <Stack gap={10}>
      <Group gap={8} mb={4}>
        {unitSets.map((set) => (
          <Button
            key={set.name}
            size="md"
            variant="default"
            data-chosen={isSet(units, set.units) || undefined}
            aria-pressed={isSet(units, set.units)}
            className={classes.set}
            onClick={() => chooseUnits(set.units)}
          >
            {set.name}
          </Button>
        ))}
      </Group>
      {unitKinds.map((kind) => (
        <div key={kind} className={classes.kind}>
          <span>{kindWords[kind]}</span>
          <SegmentedControl
            size="md"
            aria-label={kindWords[kind]}
            data={[...unitChoices[kind]]}
            value={units[kind]}
            onChange={(unit) => chooseUnits({ [kind]: unit })}
          />
        </div>
      ))}
      <p className={classes.words}>
        {units.mixture === 'AFR' &&
          'AFR is by mass: λ times the stoichiometric ratio of the fuel that each run burnt. '}
        {me ? `Kept with ${me.name}’s account.` : 'Kept in this browser.'} Files and records stay in the units that they
        were made in.
      </p>
    </Stack>
  );
}

const isSet = (units: Units, set: Units) => unitKinds.every((kind) => units[kind] === set[kind]);
