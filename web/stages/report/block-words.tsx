import { ActionIcon, Checkbox, Popover, Stack } from '@mantine/core';
import { IconPencil } from '@tabler/icons-react';
import { mostFigures, type ReportDraft } from '../../../contract/report/report.ts';
import { chosenFigures } from '../../../core/report/drafted.ts';
import type { Block } from '../../../core/report/report.ts';
import { figureIn, toldIn } from '../../../core/units/told-units.ts';
import { useUnits } from '../../units/use-own-units.tsx';
import classes from './report-stage.module.css';
import { Words } from './words.tsx';

interface BlockWordsProps {
  block: Block;
  name: string;
  draft: ReportDraft;
  onChange: (fields: Partial<ReportDraft>) => void;
}

/** A title and words of one's own for a block; for the large figures, which of them stand. */
export function BlockWords({ block: { id, content }, name, draft, onChange }: BlockWordsProps) {
  // The answer has its own fields.
  if (content.is === 'answer') return null;
  const isChanged = Boolean(draft.titles[id] || draft.notes[id] || (content.is === 'figures' && draft.figures));
  return (
    <Popover position="left-start" shadow="md" width={340} trapFocus>
      <Popover.Target>
        <ActionIcon
          size={34}
          variant={isChanged ? 'default' : 'subtle'}
          color="gray"
          aria-label={`Words of ${name}${isChanged ? ', changed' : ''}`}
        >
          <IconPencil size={16} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown className={classes.words}>
        {content.is === 'figures' && <Figures content={content} draft={draft} onChange={onChange} />}
        <Words
          label="Title"
          value={draft.titles[id] ?? ''}
          lines={1}
          most={120}
          placeholder={content.is === 'figures' || content.is === 'lanes' ? 'none' : name}
          onKeep={(title) => onChange({ titles: withWords(draft.titles, id, title) })}
        />
        <Words
          label="Own words under it"
          value={draft.notes[id] ?? ''}
          lines={3}
          most={1000}
          placeholder="what was found out stays as it is"
          onKeep={(note) => onChange({ notes: withWords(draft.notes, id, note) })}
        />
      </Popover.Dropdown>
    </Popover>
  );
}

/** Words by block, with one of them changed; none where they are empty. */
function withWords(words: Readonly<Record<string, string>>, id: string, text: string): Record<string, string> {
  const others = Object.entries(words).filter(([block]) => block !== id);
  return Object.fromEntries(text === '' ? others : [...others, [id, text]]);
}

interface FiguresProps extends Pick<BlockWordsProps, 'draft' | 'onChange'> {
  content: Extract<Block['content'], { is: 'figures' }>;
}

function Figures({ content, draft, onChange }: FiguresProps) {
  const units = useUnits();
  const { unit, of } = toldIn('kW', draft.units ?? units);
  const usual = content.figures.map(({ id }) => id);
  const chosen = chosenFigures(content, draft.figures ?? usual).map(({ id }) => id);
  const choose = (ids: string[]) => onChange({ figures: ids.join() === usual.join() ? null : ids });
  return (
    <Checkbox.Group label="Figures that stand" value={chosen} onChange={choose} mb={10}>
      <Stack gap={8} mt={6} className={classes.choices}>
        {[...content.figures, ...content.others].map(({ id, name, kw }) => (
          <Checkbox
            key={id}
            value={id}
            label={`${name}, ${figureIn(of(kw), unit, 1)} ${unit}`}
            disabled={
              (chosen.length >= mostFigures && !chosen.includes(id)) || (chosen.length === 1 && chosen.includes(id))
            }
          />
        ))}
      </Stack>
    </Checkbox.Group>
  );
}
