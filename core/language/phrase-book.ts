/**
 * A language as a book of phrases: what Suvok says in English on the left,
 * the same in the language on the right. `{0}`, `{1}` stand for what is put in,
 * in any order on the right; `{0#}` takes figures alone; `{0,}` a list.
 * A phrase that is not in the book stays as it is: somebody's own words do.
 */
export type Phrases = Readonly<Record<string, string>>;

/** Parts of a phrase: words, and the numbers of what is put in. */
export type Pieces = readonly (string | number)[];

interface Pattern {
  matches: RegExp;
  /** Which hole each group of the match is, and whether it is a list. */
  holes: readonly { index: number; list: boolean }[];
  pieces: Pieces;
  /** Letters of the phrase itself, outside of its holes: patterns with most of them are tried first. */
  said: number;
}

const hole = /\{(\d+)([#,]?)\}/g;
const hasLetters = /\p{L}/u;
/** Longer than any unit. */
const ownWords = /\p{L}{4,}/u;
/** Holes within holes are looked at so deep. */
const mostDepth = 6;

/** A language whose figures have a comma before their fractions and a point between thousands. */
export class PhraseBook {
  /** Made when a report is first written in it: most pages never are. */
  private made: { phrases: ReadonlyMap<string, string>; patterns: readonly Pattern[] } | undefined;

  /** @param and between the last two of a list */
  constructor(
    readonly id: string,
    readonly name: string,
    private readonly and: string,
    private readonly books: readonly Phrases[],
  ) {}

  private get phrases(): ReadonlyMap<string, string> {
    return (this.made ??= madeOf(this.books)).phrases;
  }

  private get patterns(): readonly Pattern[] {
    return (this.made ??= madeOf(this.books)).patterns;
  }

  /** The parts of a sentence in this language; as they are where it has no words of its own, or where the book lacks it. */
  template(words: readonly string[]): Pieces {
    const own = words.flatMap((text, index): Pieces => (index === 0 ? [text] : [index - 1, text]));
    if (!words.some((text) => hasLetters.test(text))) return own;
    const key = own.map((piece) => (typeof piece === 'number' ? `{${piece}}` : piece)).join('');
    const found = this.phrases.get(key);
    if (found !== undefined) return piecesOf(found);
    const small = this.phrases.get(key.charAt(0).toLowerCase() + key.slice(1));
    if (small !== undefined) return piecesOf(small.charAt(0).toUpperCase() + small.slice(1));
    // What is only put together, with a sentence in each of its parts.
    return own.map((piece) => (typeof piece === 'number' ? piece : this.fragment(piece)));
  }

  /** A text in this language, or as it is, with its figures written as here. */
  text(text: string, depth = 0): string {
    const exact = this.exact(text);
    if (exact !== undefined) return exact;
    if (depth < mostDepth)
      for (const { matches, holes, pieces } of this.patterns) {
        const found = matches.exec(text);
        if (!found) continue;
        const put = new Map(
          holes.map(({ index, list }, group) => [
            index,
            list ? this.list(found[group + 1] ?? '', depth + 1) : this.text(found[group + 1] ?? '', depth + 1),
          ]),
        );
        return pieces.map((piece) => (typeof piece === 'number' ? (put.get(piece) ?? '') : piece)).join('');
      }
    // A text with words that are in no phrase is somebody's own: it is never rewritten.
    return ownWords.test(text) ? text : this.figures(text);
  }

  /** Figures as they are written here: `4,500.5` as `4.500,5`. */
  figures(text: string): string {
    return text.replace(/(?<![\w.,])\d{1,3}(?:,\d{3})+(?:\.\d+)?(?!\w)|(?<![\w.,])\d+\.\d+(?![\w.]*\w)/g, (figure) =>
      figure.replace(/[.,]/g, (sign) => (sign === '.' ? ',' : '.')),
    );
  }

  /** Words between parts, which a space or a sign may stand around. */
  private fragment(text: string): string {
    const [, before = '', words = '', after = ''] = /^([\s,;:.(]*)(.*?)([\s,;:.)]*)$/s.exec(text) ?? [];
    return `${before}${words === 'and' ? this.and : (this.exact(words) ?? words)}${after}`;
  }

  private exact(text: string): string | undefined {
    const found = this.phrases.get(text);
    if (found !== undefined) return found;
    const small = this.phrases.get(text.charAt(0).toLowerCase() + text.slice(1));
    return small === undefined ? undefined : small.charAt(0).toUpperCase() + small.slice(1);
  }

  private list(text: string, depth: number): string {
    const items = text.split(/, | and |; /);
    const signs = [...text.matchAll(/, | and |; /g)].map(([sign]) => (sign === ' and ' ? ` ${this.and} ` : sign));
    return items.map((item, at) => `${this.text(item, depth)}${signs[at] ?? ''}`).join('');
  }
}

function madeOf(books: readonly Phrases[]): {
  phrases: ReadonlyMap<string, string>;
  patterns: readonly Pattern[];
} {
  const all = books.flatMap((book) => Object.entries(book));
  const patterns = all
    .filter(([said]) => said.search(hole) >= 0 && hasLetters.test(said.replace(hole, '')))
    .map(([said, as]) => patternOf(said, as))
    .sort((a, b) => b.said - a.said);
  return { phrases: new Map(all.map(([said, as]) => [plainHoles(said), as])), patterns };
}

const plainHoles = (said: string) => said.replace(hole, '{$1}');

const piecesOf = (text: string): Pieces => {
  const pieces: (string | number)[] = [];
  let at = 0;
  for (const match of text.matchAll(hole)) {
    pieces.push(text.slice(at, match.index), Number(match[1]));
    at = match.index + match[0].length;
  }
  return [...pieces, text.slice(at)];
};

function patternOf(said: string, as: string): Pattern {
  const holes: { index: number; list: boolean }[] = [];
  let source = '';
  let at = 0;
  for (const match of said.matchAll(hole)) {
    source += escaped(said.slice(at, match.index)) + (match[2] === '#' ? '([−+±<≈≥\\d][\\d.,\\s–±<−+]*)' : '(.*?)');
    holes.push({ index: Number(match[1]), list: match[2] === ',' });
    at = match.index + match[0].length;
  }
  source += escaped(said.slice(at));
  return { matches: new RegExp(`^${source}$`, 's'), holes, pieces: piecesOf(as), said: said.replace(hole, '').length };
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
