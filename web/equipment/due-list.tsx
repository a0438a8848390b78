import { Link } from 'react-router';
import type { Equipment } from '../../contract/shop/equipment.ts';
import { dueNext, dueStanding, dueWords } from '../../core/equipment/due.ts';
import { SeverityMark } from '../ui/severity.tsx';
import classes from './due-list.module.css';

/** What is overdue or due soon, the most urgent first. */
export function DueList({ equipment, today }: { equipment: readonly Equipment[]; today: string }) {
  const due = dueNext(equipment, today);
  if (due.length === 0) return <p className="soft">Nothing is due within two weeks.</p>;
  return (
    <ul className={classes.due}>
      {due.map((item) => {
        const standing = dueStanding(item, today);
        return (
          <li key={item.id}>
            <Link to="/equipment">
              {standing === 'overdue' ? <SeverityMark severity="stop" /> : <SeverityMark severity="mind" />}{' '}
              <b>{item.name}</b>
            </Link>
            <span className="number" data-standing={standing}>
              {dueWords(item, today)}
            </span>
            <small>{item.what}</small>
            <small className="number">{item.everyDays !== null && `every ${item.everyDays} days`}</small>
          </li>
        );
      })}
    </ul>
  );
}
