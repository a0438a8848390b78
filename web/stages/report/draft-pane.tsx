import { ActionIcon, Button, Checkbox, NativeSelect, SegmentedControl } from '@mantine/core';
import { IconArrowDown, IconArrowUp } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import type { ReportDraft } from '../../../contract/report/report.ts';
import { movedBlock, ordered, stands, untouched } from '../../../core/report/drafted.ts';
import { languageIds, languageNames } from '../../../core/language/languages.ts';
import { shortBlocks, type BlockId, type Report } from '../../../core/report/report.ts';
import { unitKinds, unitSets, type Units } from '../../../core/units/told-units.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { BlockWords } from './block-words.tsx';
import { Words } from './words.tsx';
import classes from './report-stage.module.css';

/** What a block is called where it has no title of its own on the sheet. */
const names: Partial<Record<BlockId, string>> = {
  answer: 'Answer',
  figures: 'Arrived, delivered, best',
  lanes: 'Curves',
};

interface DraftPaneProps {
  report: Report;
  draft: ReportDraft;
  /** Of whoever looks. */
  own: Units;
  onChange: (draft: ReportDraft | null) => void;
  /** What may be taken away of it, first; what was kept of it, after what is missing. */
  files: ReactNode;
  versions: ReactNode;
}

/** Beside the sheet: what is missing, and what may be changed of it. */
export function DraftPane({ report, draft, own, onChange, files, versions }: DraftPaneProps) {
  const { write } = useOwnUnits();
  const change = (fields: Partial<ReportDraft>) => onChange({ ...draft, ...fields });
  const list = ordered(report, draft).filter(({ id }) => draft.form === 'long' || shortBlocks.includes(id));
  const isTouched = JSON.stringify({ ...untouched, units: null }) !== JSON.stringify({ ...untouched, ...draft });
  return (
    <aside className={classes.pane} aria-label="Draft of the report">
      {files}
      {report.missing.length > 0 && (
        <section>
          <h2 className="heading">Missing, in the draft alone</h2>
          <ul className={classes.missing}>
            {report.missing.map((sentence) => (
              <li key={write(sentence)}>
                <SeverityMark severity="mind" /> <span>{write(sentence)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {versions}
      <section>
        <h2 className="heading">Form</h2>
        <SegmentedControl
          aria-label="Form"
          fullWidth
          data={[
            { value: 'long', label: 'whole' },
            { value: 'short', label: 'one page' },
          ]}
          value={draft.form}
          onChange={(form) => change({ form: form as ReportDraft['form'] })}
        />
      </section>
      <section>
        <h2 className="heading">Blocks</h2>
        <ul className={classes.blocks}>
          {list.map((block) => {
            const { id, title } = block;
            const name = names[id] ?? title;
            const isShown = stands(draft, id);
            return (
              <li key={id}>
                <Checkbox
                  label={name}
                  styles={{ body: { alignItems: 'center' } }}
                  checked={isShown}
                  onChange={() =>
                    change({ hidden: isShown ? [...draft.hidden, id] : draft.hidden.filter((other) => other !== id) })
                  }
                />
                <BlockWords block={block} name={name} draft={draft} onChange={change} />
                {([-1, 1] as const).map((by) => (
                  <ActionIcon
                    key={by}
                    size={34}
                    variant="subtle"
                    color="gray"
                    aria-label={`Move ${name} ${by < 0 ? 'up' : 'down'}`}
                    disabled={!isShown || movedBlock(report, draft, id, by) === draft}
                    onClick={() => onChange({ ...draft, order: [...movedBlock(report, draft, id, by).order] })}
                  >
                    {by < 0 ? <IconArrowUp size={16} /> : <IconArrowDown size={16} />}
                  </ActionIcon>
                ))}
              </li>
            );
          })}
        </ul>
      </section>
      <section>
        <h2 className="heading">Words</h2>
        <Words
          label="Answer in your own words"
          value={draft.headline}
          most={300}
          onKeep={(headline) => change({ headline })}
          placeholder="as it was composed"
        />
        <Words
          label="After the answer"
          value={draft.words}
          lines={3}
          onKeep={(words) => change({ words })}
          placeholder="advice, what comes next"
        />
      </section>
      <section>
        <h2 className="heading">Language of the report</h2>
        <NativeSelect
          aria-label="Language of the report"
          data={languageIds.map((value) => ({ value, label: languageNames[value] }))}
          value={draft.language}
          onChange={(event) => change({ language: languageIds.find((id) => id === event.currentTarget.value) ?? 'en' })}
        />
        {draft.language !== 'en' && (
          <p className={classes.quiet}>What somebody wrote by hand stays in its own language.</p>
        )}
      </section>
      <section>
        <h2 className="heading">Units of the report</h2>
        <NativeSelect
          aria-label="Units of the report"
          data={[
            { value: '', label: 'as on my screens' },
            ...unitSets.map(({ name }) => ({ value: name, label: name })),
            ...(isSet(draft.units) ? [] : [{ value: 'own', label: 'as chosen before' }]),
          ]}
          value={draft.units === null ? '' : (unitSets.find(({ units }) => isSame(units, draft.units))?.name ?? 'own')}
          onChange={(event) =>
            change({
              units:
                unitSets.find(({ name }) => name === event.currentTarget.value)?.units ??
                (event.currentTarget.value === 'own' ? draft.units : null),
            })
          }
        />
        {draft.units === null && (
          <p className={classes.quiet}>
            {own.power}, {own.torque}, {own.temperature}: who opens it elsewhere is told it in their own.
          </p>
        )}
      </section>
      {isTouched && (
        <Button variant="default" onClick={() => onChange(null)}>
          As it was composed
        </Button>
      )}
    </aside>
  );
}

const isSame = (a: Units, b: Units | null) => b !== null && unitKinds.every((kind) => a[kind] === b[kind]);
const isSet = (units: Units | null) => units === null || unitSets.some((set) => isSame(set.units, units));
