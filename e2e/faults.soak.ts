import type { MachineKind } from '../simulator/machine.ts';
import { expect, test } from './suvok.ts';

/** `npm run soak`: every fault, one after the other. */
const coupe = 'Tarrow Six hill-climb coupé';
const kitCar = 'Brindle 1.0 kit car, three-cylinder turbo';

/** Vehicle, dyno, and each fault with what names it: in the log, or else in Compare. */
const played: [
  string,
  MachineKind,
  { ignition: string; induction: string },
  [fault: string, found: string, inLog: boolean][],
][] = [
  [
    coupe,
    'inertia-roller',
    { ignition: 'spark', induction: 'none' },
    [
      ['tyre slip', 'The tyres slip by up to', false],
      ['wheel hop', 'The tyre hops', false],
      ['fuel cut', 'Torque is cut for', false],
      ['low limiter', 'limiter', false],
      ['heat soak', 'It started with intake at', false],
    ],
  ],
  [
    coupe,
    'inertia-roller',
    { ignition: 'spark', induction: 'none' },
    [
      ['lean at the top', 'Lean: λ ', true],
      ['rich at the top', 'Rich: λ ', true],
      ['poor fuel', 'Knock: up to', true],
      ['weak pump', 'Fuel pressure sags by', true],
      ['low battery', 'The battery reads 12.1 V', true],
      ['relearning', 'The long fuel trim moves by', true],
    ],
  ],
  [
    kitCar,
    'hub',
    { ignition: 'spark', induction: 'turbo' },
    [
      ['small injectors', 'Injectors are open up to', true],
      ['boost overshoot', 'Boost overshoots its target', true],
      ['boost cut', 'Boost is cut at', true],
      ['tired turbo', 'Boost tapers by', true],
      ['dead sensor', 'Oil pressure reads 412 kPa through the whole pull', true],
      ['sensor at its ceiling', 'Air mass flow stays at', true],
    ],
  ],
];

for (const [index, [vehicle, dyno, engine, faults]] of played.entries()) {
  test(`each fault that a stand-in can play is switched on from the page, played and named (${index + 1} of ${played.length})`, async ({
    page,
    suvok,
  }) => {
    const job = await suvok.mountedJob(vehicle);
    await suvok.ask('PATCH', `/vehicles/${job.vehicleId}`, engine);
    await suvok.startStandIns('fast', 5, dyno);
    await suvok.record(job, 2);
    const panel = page.getByRole('group', { name: /Faults that Stand-in .* plays/ });
    let before: string | undefined;
    for (const [fault, found, inLog] of faults) {
      await page.goto(`${suvok.origin}/devices`);
      if (before) await panel.getByText(before, { exact: true }).click();
      else await page.getByText('Simulate faults (training)').click();
      await panel.getByText(fault, { exact: true }).click();
      await expect(panel.getByRole('checkbox', { checked: true })).toHaveCount(1);
      before = fault;
      // A setup for each, so that a start in another heat has a baseline to differ from.
      await suvok.mountedSetup(job, `with ${fault}`);
      const run = (await suvok.record(job, 1)).at(-1)!;
      await page.goto(`${suvok.origin}/jobs/${job.id}/${inLog ? `logs?run=${run.label}` : 'compare'}`);
      await expect(page.getByText(found).first(), fault).toBeVisible();
    }
    await page.goto(`${suvok.origin}/devices`);
    await panel.getByText(before!, { exact: true }).click();
    await expect(panel.getByRole('checkbox', { checked: true })).toHaveCount(0);
  });
}
