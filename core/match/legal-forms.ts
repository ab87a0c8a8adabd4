import { fold } from '../text/fold.ts';

/**
 * Legal forms as they stand at the end or the beginning of names, folded and without stops and spaces, with what each is:
 * forms of one kind written in several ways count as the same. From the company laws of the countries in the gazetteer;
 * the kinds are: limited (members answer with their share alone), stock (shares), partnership, sole trader, cooperative.
 */
const FORMS: Readonly<Record<string, string>> = {
  limited:
    'sro spolsro spolecnostsrucenimomezenym spzoo spolkazoo spolkazograniczonaodpowiedzialnoscia gmbh ggmbh gesmbh ug ughaftungsbeschrankt ' +
    'sarl sa rl eurl sasu srl srls sl slu sociedadlimitada lda ltda limitada unipessoallda bv besloten bvba aps ehf ohf ou oy osauhing sia uab ' +
    'kft ktt doo dooel jdoo ood eood epe ike mepe tov llc lc limitedliabilitycompany ltd limited cyltd ptyltd pty proprietarylimited ltdsti ' +
    'sderl sderldecv gk yk coltd dac clg',
  stock:
    'as akciovaspolocnost akciovaspolecnost sa spolkaakcyjna psa ag se kgaa sas spa sapa nv ab abpubl publ asa aksjeselskap oyj hf plc inc ' +
    'incorporated corp corporation co company zrt nyrt rt dd ad ead eadsa ae pat prat pjsc jsc sab sadecv kk kabushikikaisha anonimsirketi anonimsirket bhd',
  partnership:
    'vos ks komanditnispolecnost verejnaobchodnispolecnost spj spolkajawna spk spolkakomandytowa sc kg ohg gbr gmbhcokg gmbhcoohg gmbhundcokg ' +
    'agcokg ugcokg egbr snc scs sca sci vof cv commv hb kb ans da ky ay tu uu ik bt kkt kda kd okd oe ee lp llp gp partnership',
  trader:
    'fop osvc einzelunternehmen ek eu ekfr einzelfirma enkeltpersonforetak enf enkmv ei eirl ditta dittaindividuale eenmanszaak ' +
    'toiminimi tmi soletrader egyenivallalkozo ev szabadfoglalkozasu pfa obrt fie mb',
  cooperative:
    'druzstvo spoldzielnia eg genossenschaft egen scop sccoop scarl scrl coop cooperativa cooperative osuuskunta osk andelslag samvirkeforetak ekonomiskforening ekfor szovetkezet zadruga',
};

const KINDS: ReadonlyMap<string, string> = new Map(
  Object.entries(FORMS).flatMap(([kind, forms]) => forms.split(' ').map((form) => [form, kind] as const)),
);

/** Words between the parts of a form. */
const JOINTS = new Set(['and', 'und', 'et', 'a', 'i', 'e', 'y', 'og', 'och', 'ja', 'de', 'of', 'with']);
/** Pieces that a form may be written in: "Sp. z o. o." has four. */
const MOST_PIECES = 6;

/** A name in the pieces that stops and spaces make of it, folded. */
const piecesOf = (name: string): string[] =>
  fold(name)
    .replace(/['`´]/g, '')
    .match(/[a-z0-9]+/g) ?? [];

/**
 * A name taken apart: its words without its legal form, and the kind of the form (null where none stands in it). A form is
 * looked for at the end, then at the beginning ("SIA Koks", "TOV Derevo"); a name is never all form.
 * "Zarmysko Stolařství, spol. s r. o." → { words: ["zarmysko", "stolarstvi"], form: "limited" }
 */
export function withoutForm(name: string): { words: string[]; form: string | null } {
  let words = piecesOf(name);
  let form: string | null = null;
  // "AB (publ)" and "GmbH & Co. KG" are two forms, one behind the other.
  for (let again = 0; again < 2; again++) {
    const cut = formAtEnd(words);
    if (!cut) break;
    form = cut.kind;
    words = words.slice(0, words.length - cut.pieces);
    while (words.length > 1 && JOINTS.has(words.at(-1)!)) words.pop();
  }
  if (form === null) {
    const cut = formAtStart(words);
    if (cut) {
      form = cut.kind;
      words = words.slice(cut.pieces);
    }
  }
  return { words, form };
}

function formAtEnd(words: readonly string[]): { kind: string; pieces: number } | null {
  let found: { kind: string; pieces: number } | null = null;
  let text = '';
  for (let pieces = 1; pieces <= MOST_PIECES && pieces < words.length; pieces++) {
    text = words[words.length - pieces]! + text;
    if (text.length > LONGEST) break;
    const kind = KINDS.get(text);
    if (kind) found = { kind, pieces };
  }
  return found;
}

function formAtStart(words: readonly string[]): { kind: string; pieces: number } | null {
  let found: { kind: string; pieces: number } | null = null;
  let text = '';
  for (let pieces = 1; pieces <= MOST_PIECES && pieces < words.length; pieces++) {
    text += words[pieces - 1]!;
    if (text.length > LONGEST) break;
    const kind = KINDS.get(text);
    // Short words at the beginning are oftener words: "Da Marco", "Se Tor".
    if (kind && (text.length > 2 || STARTING.has(text))) found = { kind, pieces };
  }
  return found;
}

const LONGEST = Math.max(...[...KINDS.keys()].map((form) => form.length));

/** Forms of two letters that stand before names. */
const STARTING = new Set(['ou', 'ab', 'as', 'oy', 'zs', 'pt']);

/** The kind of a legal form in a column of its own; null where it is none that is known. */
export function formKind(text: string | null): string | null {
  return text === null ? null : (KINDS.get(piecesOf(text).join('')) ?? withoutForm(`x ${text}`).form);
}
