import { goTo } from './go-to.ts';
import { createServer, type Server } from 'node:net';
import { expect, test } from './suvok.ts';

/** A home-made roller that sends a line a hundred times a second: ms, roller rpm with a comma, N·m, a word, engine rpm. */
let instrument: Server;
let port: number;
test.beforeEach(async () => {
  instrument = createServer((socket) => {
    let at = 0;
    const timer = setInterval(() => socket.write(`R:;${10 * at++};600,5;12;ok;2034\r\n`), 10);
    socket.on('close', () => clearInterval(timer));
    socket.on('error', () => undefined);
  });
  await new Promise<void>((done) => instrument.listen(0, '127.0.0.1', done));
  ({ port } = instrument.address() as { port: number });
});
test.afterEach(() => instrument.close());

test('an instrument that sends lines is listened to, its columns named by hand, and then counts as any other', async ({
  page,
  suvok,
}) => {
  await goTo(page, `${suvok.origin}/devices`);
  await page.getByRole('button', { name: 'Connect an instrument' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('Say where its lines come from.')).toBeVisible();
  await dialog.getByLabel('Its name or address').fill('127.0.0.1');
  await dialog.getByLabel('Its port').fill(String(port));
  await dialog.getByRole('button', { name: 'Listen' }).click();
  await expect(dialog.getByLabel('Lines heard')).toContainText('600,5;12;ok;2034');
  await expect(dialog.getByText(/lines, \d+(\.\d)? a second/)).toBeVisible();
  await dialog.getByLabel('Lines begin with').fill('R:');
  await expect(dialog.getByRole('checkbox', { name: 'Numbers have a decimal comma' })).toBeChecked();
  const column = (number: number) => dialog.getByRole('row').nth(number);
  const name = async (number: number, is: string, unit?: string) => {
    await dialog.getByRole('combobox', { name: `What column ${number} is` }).fill(is);
    if (unit) await dialog.getByLabel(`Unit of column ${number}`).fill(unit);
  };
  await name(1, 'its clock', 'ms');
  await name(2, 'rollerSpeed', 'furlongs');
  await expect(dialog.getByText('The unit of rollerSpeed is not one of its kind.')).toBeVisible();
  await name(2, 'rollerSpeed', 'rpm');
  await expect(column(2)).toContainText('62.884 rad/s');
  await name(3, 'absorberTorque');
  await name(5, 'engineSpeed');
  await expect(column(5)).toContainText('2,034 rpm');
  await dialog.getByLabel('Name of the instrument').fill('Old roller');
  await dialog.getByLabel('Inertia of the drum, kg·m²').fill('9.5');
  await dialog.getByLabel('Drum radius, m').fill('0.159');
  await dialog.getByRole('button', { name: 'Connect', exact: true }).click();
  await expect(dialog).toBeHidden();
  const device = page.getByRole('region', { name: 'Old roller' });
  await expect(device.getByText('connected', { exact: true })).toBeVisible();
  await expect(device).toContainText('62.884');
  await expect(page.getByRole('status', { name: 'Bay' })).toContainText('loaded roller');
  // Remembered, and to be changed.
  await page.reload();
  const byHand = page.getByRole('region', { name: 'Connected by hand' });
  await expect(byHand).toContainText(`lines over TCP from 127.0.0.1, port ${port}`);
  await byHand.getByRole('button', { name: 'Change' }).click();
  await expect(dialog.getByLabel('Inertia of the drum, kg·m²')).toHaveValue('9.5');
  await expect(dialog.getByRole('combobox', { name: 'What column 5 is' })).toHaveValue('engineSpeed');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await byHand.getByRole('button', { name: 'Let it go' }).click();
  await expect(byHand).toBeHidden();
  await expect(device).toBeHidden();
});

test(
  'where nobody listens the dialog says so, and a name that is taken is refused',
  { tag: '@long' },
  async ({ page, suvok }) => {
    await suvok.startStandIns('fast');
    await goTo(page, `${suvok.origin}/devices`);
    await page.getByRole('button', { name: 'Connect an instrument' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('combobox', { name: 'It is' }).click();
    await page.getByRole('option', { name: 'engine logger' }).click();
    await dialog.getByLabel('Its name or address').fill('127.0.0.1');
    await dialog.getByLabel('Its port').fill('1');
    await dialog.getByRole('button', { name: 'Listen' }).click();
    await expect(dialog.getByText('127.0.0.1, port 1: nobody listens there. It is tried again.')).toBeVisible();
    await dialog.getByLabel('Its port').fill(String(port));
    await dialog.getByRole('button', { name: 'Listen anew' }).click();
    await expect(dialog.getByLabel('Lines heard')).toContainText('2034');
    await dialog.getByRole('combobox', { name: 'What column 6 is' }).fill('engineSpeed');
    await dialog.getByLabel('Name of the instrument').fill('stand-in-roller');
    await dialog.getByRole('button', { name: 'Connect', exact: true }).click();
    await expect(dialog.getByText(/called stand-in-roller is connected already/)).toBeVisible();
  },
);
