import MiniSearch from 'minisearch';
import { foldedWords } from '../text/fold.ts';
import type { CodeTree, Scheme } from './tree.ts';

/** One activity term that leads to a code, such as a national subclass title. */
export interface Keyword {
  scheme: string;
  code: string;
  term: string;
}

/** A code found by words. `by` is the keyword that matched where the title does not hold the words. */
export interface CodeHit {
  code: string;
  title: string;
  level: number;
  by?: string;
  /** Its title or one of its keywords is just the text. */
  exact?: true;
  /** Only its note has the words. */
  inNote?: true;
  /** Only spelled like the text, or with its words apart. */
  alike?: true;
}

/** What is said instead of a keyword where only the note has the words. */
const IN_NOTE = 'in its note';

/** Letters from which on a misspelling is forgiven; shorter texts meet too much by chance. */
/** Words that the name of a trade has at most; every one more is another search of the whole index. */
const MOST_WORDS = 12;
const FUZZY_FROM = 5;
/** How much of a word may be misspelt: about one letter in four. */
const FUZZY = 0.24;

/** The note of a code, or an empty text. */
type NoteOf = (scheme: Scheme, code: string) => string;

/** Finds codes of one scheme by words over titles, keywords and notes, accents and plurals forgiven. */
export class CodeSearch {
  private readonly index: MiniSearch;
  private readonly tree: CodeTree;
  private readonly noteOf: NoteOf;
  private readonly terms = new Map<string, string[]>();

  constructor(tree: CodeTree, keywords: Keyword[], noteOf: NoteOf = () => '') {
    this.tree = tree;
    this.noteOf = noteOf;
    for (const { scheme, code, term } of keywords) {
      if (scheme !== tree.scheme) continue;
      this.terms.set(code, [...(this.terms.get(code) ?? []), term]);
    }
    this.index = new MiniSearch({
      fields: ['title', 'terms', 'note'],
      tokenize: (text) => foldedWords(text),
      processTerm: stem,
      searchOptions: {
        boost: { title: 3, note: 0.2 },
        prefix: true,
        combineWith: 'AND',
        weights: { prefix: 0.6, fuzzy: 0.2 },
      },
    });
    this.index.addAll(
      tree.codes.map((code, id) => ({
        id,
        title: tree.titles[id],
        terms: (this.terms.get(code) ?? []).join(' ; '),
        note: noteOf(tree.scheme, code),
      })),
    );
  }

  /** The best codes for some words or the beginning of a code, best first. Spelling is forgiven only where nothing matches as written. No trade has more than a dozen words. */
  find(text: string, limit: number): CodeHit[] {
    const code = text.trim().toUpperCase();
    if (/^[A-Z]?\d[\d.-]*$/.test(code)) {
      const found = this.tree.codes
        .map((_, node) => node)
        .filter((node) => this.tree.codes[node]!.startsWith(code));
      return found.slice(0, limit).map((node) => this.hit(node, [], ''));
    }
    const plain = [...new Set(foldedWords(text))];
    if (plain.length > MOST_WORDS) return [];
    const words = plain.map(stem);
    const asked = plain.join(' ');
    let results = this.index.search(asked);
    const alike = results.length === 0 && text.trim().length >= FUZZY_FROM;
    if (alike) results = this.index.search(asked, { fuzzy: FUZZY });
    return results
      .slice(0, limit)
      .map((result) => ({ ...this.hit(Number(result.id), words, text), ...(alike ? { alike } : {}) }));
  }

  private hit(node: number, words: string[], text: string): CodeHit {
    const code = this.tree.codes[node]!;
    const title = this.tree.titles[node]!;
    const hit: CodeHit = { code, title, level: this.tree.levels[node]! };
    const holds = (text: string) => {
      const there = foldedWords(text).map(stem);
      return words.every((word) => there.some((other) => other.startsWith(word)));
    };
    if (words.length && !holds(title))
      hit.by = (this.terms.get(code) ?? []).find(holds) ?? this.byNote(code, holds);
    if (hit.by === IN_NOTE) hit.inNote = true;
    // Its words are there, but in terms that have nothing to do with each other.
    else if (words.length && hit.by === undefined && !holds(title)) hit.alike = true;
    const whole = stemmed(text);
    if (whole !== '' && [title, ...(this.terms.get(code) ?? [])].some((term) => stemmed(term) === whole))
      hit.exact = true;
    return hit;
  }

  private byNote(code: string, holds: (text: string) => boolean): string | undefined {
    return holds(this.noteOf(this.tree.scheme, code)) ? IN_NOTE : undefined;
  }
}

function stemmed(text: string): string {
  return foldedWords(text).map(stem).join(' ');
}

/** English plurals and the commonest endings cut, so that "joineries" meets "joinery" and "printers" meets "printing". */
function stem(word: string): string {
  let cut = word;
  if (cut.length > 4 && cut.endsWith('ies')) cut = `${cut.slice(0, -3)}y`;
  else if (cut.length > 3 && cut.endsWith('s') && !cut.endsWith('ss')) cut = cut.slice(0, -1);
  if (cut.length > 5 && (cut.endsWith('ing') || cut.endsWith('ers'))) cut = cut.slice(0, -3);
  else if (cut.length > 5 && cut.endsWith('er')) cut = cut.slice(0, -2);
  return cut;
}

/** The searches of all schemes, each made when it is first asked for. */
export class CodeSearches {
  private readonly trees: ReadonlyMap<Scheme, CodeTree>;
  private readonly readKeywords: () => Keyword[];
  private readonly noteOf: NoteOf;
  private keywords: Keyword[] | null = null;
  private readonly made = new Map<Scheme, CodeSearch>();

  constructor(
    trees: ReadonlyMap<Scheme, CodeTree>,
    readKeywords: () => Keyword[],
    noteOf: NoteOf = () => '',
  ) {
    this.trees = trees;
    this.readKeywords = readKeywords;
    this.noteOf = noteOf;
  }

  of(scheme: Scheme): CodeSearch {
    let search = this.made.get(scheme);
    if (!search) {
      this.keywords ??= this.readKeywords();
      search = new CodeSearch(this.trees.get(scheme)!, this.keywords, this.noteOf);
      this.made.set(scheme, search);
    }
    return search;
  }
}
