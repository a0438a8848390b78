import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Equipment } from '../../../contract/shop/equipment.ts';
import { daysLeft, dueDay, dueStanding, dueWords } from '../../../core/equipment/due.ts';
import { calendarToday, useEquipment } from '../../equipment/use-equipment.ts';
import { useKeys } from '../../keys/use-keys.ts';
import { entriesOfShop } from '../../state/entries.ts';
import { Keycap } from '../../ui/keycap.tsx';
import { SeverityMark } from '../../ui/severity.tsx';
import { NotFetched } from '../../ui/not-fetched.tsx';
import { EquipmentForm } from './equipment-form.tsx';
import word from '../../ui/word-button.module.css';
import classes from './equipment-page.module.css';

/** What must be kept in date: the most urgent first, each with its dates and certificates. */
export function EquipmentPage() {
  const { data, error, refetch } = useEquipment();
  const [opened, setOpened] = useState<Equipment | 'new'>();
  const today = calendarToday();
  useKeys([{ keys: ['n'], shown: 'N', says: 'New equipment', run: () => setOpened('new') }]);
  const items = [...(data ?? [])].sort(
    (one, other) => (daysLeft(one, today) ?? Infinity) - (daysLeft(other, today) ?? Infinity),
  );
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <h1>Equipment</h1>
        <Button onClick={() => setOpened('new')} rightSection={<Keycap>N</Keycap>}>
          New equipment
        </Button>
      </header>
      <NotFetched error={error} tryAgain={refetch} />
      {data?.length === 0 && (
        <p className={classes.empty}>
          Nothing is kept in date here yet. Add probes, load cells, straps, the extinguisher, the carbon-monoxide alarm,
          software keys and licences, each with its last date and interval: Today tells two weeks ahead.
        </p>
      )}
      {items.length > 0 && (
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Due</th>
              <th scope="col">Last</th>
              <th scope="col">Every</th>
              <th scope="col">Certificates</th>
              <th scope="col">
                <span className="seen-by-readers">Acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {items.map((item) => (
              <Row key={item.id} item={item} today={today} onOpen={() => setOpened(item)} />
            ))}
          </tbody>
        </table>
      )}
      <EquipmentForm opened={opened} onClose={() => setOpened(undefined)} />
    </main>
  );
}

function Row({ item, today, onOpen }: { item: Equipment; today: string; onOpen: () => void }) {
  const standing = dueStanding(item, today);
  const done = () => void entriesOfShop('equipment').change(item.id, { lastOn: today, dueOn: null });
  return (
    <tr data-standing={standing}>
      <th scope="row">
        <button type="button" className={word.word} onClick={onOpen}>
          {item.name}
        </button>
        <small>{[item.kind, item.serial, item.what, item.note].filter(Boolean).join(' · ')}</small>
      </th>
      <td className="number">
        {standing === 'overdue' && <SeverityMark severity="stop" />}
        {standing === 'due soon' && <SeverityMark severity="mind" />} {dueWords(item, today)}
        <small>{dueDay(item)}</small>
      </td>
      <td className="number">{item.lastOn ?? '–'}</td>
      <td className="number">{item.everyDays === null ? '–' : `${item.everyDays} days`}</td>
      <td>
        {item.files.map(({ id, name }) => (
          <a key={id} href={`/api/equipment-files/${id}/content`} download={name}>
            {name}
          </a>
        ))}
      </td>
      <td>
        {item.everyDays !== null && item.lastOn !== today && (
          <Button variant="default" size="sm" onClick={done}>
            Done today
          </Button>
        )}
      </td>
    </tr>
  );
}
