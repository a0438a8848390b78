import { z } from 'zod';
import { booking } from '../../contract/shop/day.ts';
import type { Job } from '../../contract/job/records.ts';
import type { DemoAsk } from './ask.ts';

/** What the demo shop has booked, around its last day; hours count from that day's beginning, 24 back or on is the same hour of another day. */
interface DemoBooking {
  /** Question of the job that it is for, as far as it begins; or who comes, where there is no job yet. */
  of?: string;
  title?: string;
  /** Null: on the floor. */
  bay: number | null;
  work: string;
  fromHour: number;
  hours: number;
  repeat?: { every: 'week'; times: number };
}

const day = 24;
const demoBookings: readonly DemoBooking[] = [
  {
    title: 'Shop car',
    bay: 1,
    work: 'check run',
    fromHour: -5 * day - 1,
    hours: 0.5,
    repeat: { every: 'week', times: 4 },
  },
  { of: 'What does a gentler', bay: 1, work: 'cruise, fuel', fromHour: -3 * day + 2.5, hours: 2 },
  { of: 'Is there anything left', bay: 1, work: 'ignition above 7,000', fromHour: -2 * day + 1, hours: 2.5 },
  { of: 'Exhaust temperature', bay: 1, work: 'injection end', fromHour: -day + 0.25, hours: 2 },
  { of: 'Stumbles', bay: 1, work: 'part load', fromHour: -day + 2.25, hours: 2.25 },
  { of: 'How much boost', bay: 1, work: 'boost in steps', fromHour: -day + 4.75, hours: 3 },
  { of: 'Does the short intake', bay: 1, work: 'short intake', fromHour: -0.25, hours: 2 },
  { of: 'Road check', bay: 1, work: 'verify, hand over', fromHour: 2, hours: 1.25 },
  { title: 'M. Aldous, blue saloon', bay: 1, work: 'what does it make', fromHour: 4, hours: 1.5 },
  { of: 'Booked for the hub', bay: 2, work: 'baseline, mixture', fromHour: 1.5, hours: 3 },
  { of: 'Does it pull the pass', bay: null, work: 'stands cold since yesterday', fromHour: -0.25, hours: 6 },
  { of: 'Does the smaller pulley', bay: null, work: 'fit the pulley, if it comes', fromHour: 5, hours: 2.5 },
  { of: 'Does it pull the pass', bay: 1, work: 'cold start, then the pass', fromHour: day, hours: 2 },
  { of: 'Second key', bay: 1, work: 'wet key', fromHour: day + 3, hours: 2 },
  { of: 'Does the smaller pulley', bay: 2, work: 'does it pay', fromHour: 2 * day + 1, hours: 3 },
];

/** What the demo shop keeps in date, days from its last day. */
const demoEquipment = [
  { name: 'λ probe 2', kind: 'probe', serial: '', what: 'free-air check', lastDaysAgo: 29, everyDays: 30 },
  {
    name: 'Load cell, loaded roller',
    kind: 'load cell',
    serial: 'LC-0418',
    what: 'known masses, up and down',
    lastDaysAgo: 150,
    everyDays: 365,
  },
  {
    name: 'Carbon-monoxide alarm',
    kind: 'alarm',
    serial: '',
    what: 'battery and test',
    lastDaysAgo: 356,
    everyDays: 365,
  },
  {
    name: 'Fire extinguisher, cell',
    kind: 'extinguisher',
    serial: 'F 22',
    what: 'serviced',
    lastDaysAgo: 733,
    everyDays: 730,
  },
  {
    name: 'Straps, front pair',
    kind: 'straps',
    serial: '',
    what: 'looked over, stitching',
    lastDaysAgo: 60,
    everyDays: 182,
  },
] as const;

const demoPrices = [
  { name: 'Dyno', per: 'dyno hour', amount: 95, currency: '€' },
  { name: 'Workshop', per: 'work hour', amount: 62, currency: '€' },
  { name: 'Tune file', per: 'tune file', amount: 120, currency: '€' },
  { name: 'Diesel', per: 'litre', amount: 1.58, currency: '€' },
  { name: 'E85', per: 'litre', amount: 1.09, currency: '€' },
] as const;

/** How the owners are reached. */
const contacts: Readonly<Record<string, string>> = {
  'A. Sorrel': '555 0142',
  'J. Pellwick': '555 0117',
  'Corrie Lines': '555 0163, Corrie',
  'Fenmoor Hill Club': 'secretary@fenmoor.example',
};

const quarterMs = 15 * 60e3;
/** They were booked so long before the last day, ms. */
const bookedMs = 4 * day * 3600e3;

/** Books what the demo shop has booked, and writes down how its owners are reached. @param began when the last day began @param whole whether all demo days were played: else bookings of jobs that were not are left out */
export async function bookDays(jobs: readonly Job[], began: Date, whole: boolean, ask: DemoAsk): Promise<void> {
  const first = Math.round(began.getTime() / quarterMs) * quarterMs;
  ask.now = new Date(began.getTime() - bookedMs);
  for (const { of, title = '', bay, work, fromHour, hours, repeat = null } of demoBookings) {
    const job = jobs.find(({ question }) => of !== undefined && question.startsWith(of));
    if (of !== undefined && !job) {
      if (whole) throw new Error(`The demo books a job that it does not have: ${of}`);
      continue;
    }
    const startsAt = shifted(first, fromHour);
    await ask.json(z.array(booking), 'POST', '/api/bookings', {
      jobId: job?.id ?? null,
      title,
      bay,
      work,
      startsAt: startsAt.toISOString(),
      endsAt: new Date(startsAt.getTime() + hours * 3600e3).toISOString(),
      repeat,
    });
  }
  for (const { lastDaysAgo, ...item } of demoEquipment)
    await ask.json(z.looseObject({}), 'POST', '/api/equipment', {
      ...item,
      lastOn: dayText(shifted(first, -lastDaysAgo * day)),
      dueOn: null,
      device: '',
      note: '',
    });
  for (const price of demoPrices) await ask.json(z.looseObject({}), 'POST', '/api/prices', price);
  for (const { car } of jobs) {
    const contact = contacts[car.ownerName];
    if (car.ownerId !== null && contact)
      await ask.json(z.looseObject({}), 'PATCH', `/api/owners/${car.ownerId}`, { contact });
  }
}

/** Whole days by the calendar and the rest by the clock. */
function shifted(firstMs: number, hours: number): Date {
  const days = Math.round(hours / day);
  const moment = new Date(firstMs + (hours - days * day) * 3600e3);
  moment.setDate(moment.getDate() + days);
  return moment;
}

/** A day of the calendar by the shop's clock. */
const dayText = (moment: Date) =>
  [moment.getFullYear(), moment.getMonth() + 1, moment.getDate()]
    .map((part) => String(part).padStart(2, '0'))
    .join('-');
