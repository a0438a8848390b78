/** The invented shop's first days, played by the stand-ins through the recorder (nothing is typed in). */
export interface DemoJob {
  vehicle: string;
  owner: string;
  question: string;
  gear: string;
  /** Hours before the first start at which the day began. */
  hoursAgo: number;
  seed: number;
  setups: {
    /** Letter of the setup it was changed from, and what changed; the first setup has neither. */
    from?: string;
    change?: string;
    pulls: DemoPull[];
  }[];
}

export interface DemoPull {
  /** Cool-down before the pull, minutes. */
  afterMin: number;
  note?: string;
  setAside?: string;
}

const pulls = (count: number, afterMin: number): DemoPull[] => Array.from({ length: count }, () => ({ afterMin }));

/** Oldest first; the last one with runs stays on the dyno. */
export const demoJobs: DemoJob[] = [
  {
    vehicle: 'Ostrel 990 twin',
    owner: 'J. Pellwick',
    question: 'Is there anything left above 9,000 before the season?',
    gear: '5th',
    hoursAgo: 51,
    seed: 21,
    setups: [
      { pulls: pulls(3, 7) },
      { from: 'A', change: 'Ignition +2° above 7,000', pulls: pulls(3, 7) },
      {
        from: 'B',
        change: 'Ignition +3° above 7,000',
        pulls: [{ afterMin: 12, note: 'one step too far' }, { afterMin: 7 }],
      },
    ],
  },
  {
    vehicle: 'Brindle 1.0 kit car, three-cylinder turbo',
    owner: 'Fenmoor Hill Club',
    question: 'Booked for the hub dyno: what does it make as it comes?',
    gear: '3rd',
    hoursAgo: 20,
    seed: 1,
    setups: [{ pulls: [] }],
  },
  {
    vehicle: 'Tarrow Six hill-climb coupé',
    owner: 'A. Sorrel',
    question: 'Does the short intake pay above 5,000?',
    gear: '4th',
    hoursAgo: 2.4,
    seed: 8,
    setups: [
      {
        pulls: [
          { afterMin: 8 },
          { afterMin: 8 },
          { afterMin: 1.5, note: 'phone rang, went again at once', setAside: 'started hot, 90 s after A2' },
          { afterMin: 14 },
          { afterMin: 8 },
        ],
      },
      { from: 'A', change: 'Ignition +1.5° above 4,000', pulls: pulls(3, 8) },
      {
        from: 'B',
        change: 'Intake trumpets 40 mm shorter',
        pulls: [{ afterMin: 14 }, { afterMin: 8, note: 'duller below 4,000, sings above' }, { afterMin: 8 }],
      },
    ],
  },
];
