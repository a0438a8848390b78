import { fetchWhatChanged } from '../state/what-changed.ts';
import { Button, TextInput, Textarea } from '@mantine/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { RequestProblem } from '../state/api.ts';
import { draftOf, keepDraft } from '../state/drafts.ts';
import { keptFigure, typedFigure } from '../units/typed-figure.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
import classes from './saved-field.module.css';

interface SavedFieldProps {
  label: string;
  value: string;
  /** Where it is stored, as a name: drafts are kept under it. */
  place: string;
  /** Name of the field on the server, to tell whose conflict it is. */
  field: string;
  revision: number;
  /** Stores it; refuses with a sentence. */
  save: (text: string, revision: number | undefined) => Promise<unknown>;
  /** A sentence where the text cannot be stored as it is. */
  refuse?: (text: string) => string | undefined;
  placeholder?: string;
  lines?: number;
  /** One line that breaks where it is too long for its room. */
  breaks?: boolean;
  after?: ReactNode;
  inputMode?: 'decimal' | 'text';
  list?: string;
}

/**
 * A text that stores itself when it is left. What is not stored stays in the
 * field, and in the browser, with the sentence that says why; where somebody
 * else wrote the same field meanwhile, both texts are shown and neither is lost.
 */
export function SavedField(props: SavedFieldProps) {
  const { label, value, place, field, revision, save, refuse, placeholder, lines, breaks, after, inputMode, list } =
    props;
  const [text, setText] = useState(() => draftOf(place) ?? value);
  const [problem, setProblem] = useState<{ sentence: string; theirs?: string }>();
  const [saving, setSaving] = useState(false);
  const known = useRef(value);
  const based = useRef(revision);
  const written = useRef(text);
  useEffect(() => {
    written.current = text;
  });
  // What others wrote is taken over, except while somebody types here.
  useEffect(() => {
    if (written.current === known.current) {
      setText(value);
      based.current = revision;
    }
    known.current = value;
  }, [value, revision]);

  const store = async (over = false) => {
    if (text === value && !over) {
      keepDraft(place, null);
      setProblem(undefined);
      return;
    }
    const refused = refuse?.(text);
    if (refused) {
      setProblem({ sentence: refused });
      return;
    }
    setSaving(true);
    try {
      await save(text, over ? undefined : based.current);
      known.current = text;
      keepDraft(place, null);
      setProblem(undefined);
      await fetchWhatChanged();
    } catch (error) {
      const { message, field: about, current } = error as RequestProblem;
      const theirs = about === field && current ? textOf(current[field]) : undefined;
      setProblem({ sentence: message, ...(theirs === undefined ? {} : { theirs }) });
    } finally {
      setSaving(false);
    }
  };

  const shared = {
    label,
    placeholder,
    value: text,
    inputMode,
    'aria-busy': saving,
    error: problem && (
      <span className={classes.problem}>
        {problem.sentence}{' '}
        {problem.theirs === undefined ? (
          <Button size="compact-sm" variant="default" onClick={() => void store()}>
            Store it
          </Button>
        ) : (
          <>
            <Button size="compact-sm" variant="default" onClick={() => void store(true)}>
              Store mine
            </Button>{' '}
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => {
                const theirs = problem.theirs ?? '';
                setText(theirs);
                known.current = theirs;
                keepDraft(place, null);
                setProblem(undefined);
                void fetchWhatChanged();
              }}
            >
              Take theirs
            </Button>
          </>
        )}
      </span>
    ),
    rightSection: after,
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      setText(event.currentTarget.value);
      keepDraft(place, event.currentTarget.value === value ? null : event.currentTarget.value);
    },
    onBlur: () => void store(),
  };
  if (lines && lines > 1) return <Textarea {...shared} autosize minRows={lines} maxRows={10} />;
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      void store();
    }
    if (event.key === 'Escape') {
      setText(value);
      keepDraft(place, null);
      setProblem(undefined);
    }
  };
  if (breaks) return <Textarea {...shared} autosize minRows={1} maxRows={5} onKeyDown={onKeyDown} />;
  return <TextInput {...shared} list={list} onKeyDown={onKeyDown} />;
}

/** What somebody else stored, as it would stand in the field. */
const textOf = (value: unknown) =>
  value === null || value === undefined ? '' : typeof value === 'string' ? value : JSON.stringify(value);

/** A number in a field of text: empty is none. Decimal commas are taken. @returns undefined for no number */
export function numberOf(text: string): number | null | undefined {
  const plain = text.trim().replace(/\s/g, '').replace(',', '.').replace('−', '-');
  if (plain === '') return null;
  const value = Number(plain);
  return Number.isFinite(value) ? value : undefined;
}

/** A number that stores itself; null where the field is empty. It is written in the person's unit and kept in its own. */
export function SavedNumber({
  value,
  save,
  unit = '',
  place,
  ...rest
}: Omit<SavedFieldProps, 'value' | 'save' | 'refuse' | 'inputMode' | 'after'> & {
  value: number | null;
  /** That it is kept in. */
  unit?: string;
  save: (value: number | null, revision: number | undefined) => Promise<unknown>;
}) {
  const told = useOwnUnits().told(unit);
  return (
    <SavedField
      {...rest}
      // A draft that was begun in one unit is not used in another.
      place={told.unit === unit ? place : `${place}/${told.unit}`}
      inputMode="decimal"
      value={value === null ? '' : typedFigure(value, told, unit)}
      refuse={(text) => (numberOf(text) === undefined ? 'That is not a number.' : undefined)}
      save={(text, revision) => {
        const typed = numberOf(text) ?? null;
        return save(typed === null ? null : keptFigure(typed, told, unit), revision);
      }}
      after={told.unit && <span className="soft">{told.unit}</span>}
    />
  );
}
