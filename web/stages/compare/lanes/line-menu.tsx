import { useKeys } from '../../../keys/use-keys.ts';
import { Button, Checkbox, Group, Popover, SegmentedControl, Text } from '@mantine/core';
import { useHotkeys, type HotkeyItem } from '@mantine/hooks';
import type { Job } from '../../../../contract/job/records.ts';
import { ranSetups } from '../../../../core/job/counted.ts';
import { linesOf, showing } from '../view/line-list.ts';
import button from '../../../ui/text-button.module.css';
import classes from './lane-menu.module.css';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

/** Lines that a digit stands for. */
const digits = 9;

/** Which setups' lines are drawn, and whose single runs: by pointer, or by digits (with Shift one alone). */
export function LineMenu({ job, view, change }: { job: Job; view: CompareView; change: ChangeView }) {
  const lines = linesOf(ranSetups(job.setups, job.runs), view);
  const usual = [
    ...new Set(
      [view.test, view.against, view.baseline].filter((setup) => setup.jobId === job.id).map(({ letter }) => letter),
    ),
  ];
  const shown = lines.filter((line) => line.shown).map(({ letter }) => letter);
  const toggle = (letter: string) =>
    change(
      showing(lines, usual, shown.includes(letter) ? shown.filter((other) => other !== letter) : [...shown, letter]),
    );
  const alone = (letter: string) => {
    // Pressed again, the usual lines come back.
    const isAlone = shown.every((other) => other === letter || other === view.test.letter);
    change(showing(lines, usual, isAlone ? usual : [letter]));
  };
  useHotkeys(
    lines.slice(0, digits).flatMap(({ letter }, index): HotkeyItem[] => [
      [`${index + 1}`, () => toggle(letter)],
      [`shift+Digit${index + 1}`, () => alone(letter), { usePhysicalKeys: true }],
    ]),
  );
  useKeys([
    { shown: '1 … 9', says: 'Show or hide the line of a setup' },
    { shown: 'Shift 1 … 9', says: 'Show only this line' },
  ]);
  return (
    <Popover width={340} position="bottom-start" shadow="md" trapFocus>
      <Popover.Target>
        <button className={button.act}>Lines</button>
      </Popover.Target>
      <Popover.Dropdown>
        <ul className={classes.lines}>
          {lines.map(({ letter, change: what, shown: drawn, always }, index) => (
            <li key={letter}>
              <Checkbox
                checked={drawn}
                disabled={always}
                label={`${letter}, ${what}`}
                onChange={() => toggle(letter)}
              />
              <Group gap={6} wrap="nowrap">
                {index < digits && <kbd>{index + 1}</kbd>}
                <Button
                  size="xs"
                  variant="subtle"
                  color="gray"
                  aria-label={`Show only ${letter}`}
                  onClick={() => alone(letter)}
                >
                  Show only this
                </Button>
              </Group>
            </li>
          ))}
        </ul>
        <Text size="xs" c="dimmed" mb={10}>
          A digit shows or hides a line; with Shift it stands alone beside the compared one.
        </Text>
        <Text size="sm" fw={500} mb={4}>
          single runs
        </Text>
        <SegmentedControl
          fullWidth
          aria-label="Single runs of"
          data={[
            { value: 'test', label: `of ${view.test.letter}` },
            { value: 'all', label: 'of all shown' },
            { value: 'none', label: 'none' },
          ]}
          value={view.singles}
          onChange={(singles) => change({ singles: singles === 'test' ? undefined : singles })}
        />
      </Popover.Dropdown>
    </Popover>
  );
}
