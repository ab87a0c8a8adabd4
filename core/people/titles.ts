import type { LEVELS } from '../fields/people.ts';
import { foldedWords } from '../text/fold.ts';

/**
 * What the words of a title say of department and level, in the languages that the demo's countries write them in. A table of
 * stems, open to be read and mended: a word counts where it begins with the stem, is it where the stem ends in a full stop, or
 * ends in it where the stem begins with an asterisk.
 */

type Level = (typeof LEVELS)[number];

/** Stems by level, the highest first; a title is of the first level that it has a word of. */
const LEVEL_STEMS: readonly (readonly [Level, string])[] = [
  [
    'founder',
    'founder cofounder grunder zakladatel zalozyciel fondateur fundador fondatore alapito grundare oprichter',
  ],
  [
    'owner',
    'owner inhaber eigentumer majitel wlasciciel proprietaire propriet titolare tulajdonos agare eigenaar gesellschafter partner.',
  ],
  [
    'director',
    'director directeur directric direttric directora. reditelk riaditelk dyrektork toimitusjohtaj administrador bestuurder gerent direttore dyrektor direktor reditel riaditel igazgato geschaftsfuhrer vorstand managing ceo. cfo. coo. cto. cmo. md. prokurist president vicepresident jednatel konatel prezes gerant amministratore vd. direktør',
  ],
  [
    'head',
    'head chief leiter *leiter *leiterin *chef leitung vedouci veduci kierownik kierownicz responsab ansvarig paallikko capo jefe vezeto chef chefe hoofd sef lead. teamleiter werkleiter betriebsleiter betriebsleiterin obermeister',
  ],
  [
    'manager',
    'manager managerin gestionnaire supervisor koordinator coordinator planner disponent spravce referent.',
  ],
  [
    'specialist',
    'specialist engineer ingenieur inzenyr technician techniker technik buyer accountant buchhalter ucetni clerk sachbearbeiter assistant assistent asistent representative berater estimator designer mechanic referent reception dispatcher inginer',
  ],
];

/** Words that make a title one of those who help, whatever else it names: "assistant to the managing director". */
const HELPERS = ['assist', 'asist', 'secretar', 'sekret', 'deputy.'];

/** Stems by department. Management is what nothing else says of those at the top. */
const DEPARTMENT_STEMS: readonly (readonly [string, string])[] = [
  [
    'purchasing',
    'purchas procure einkauf nakup zakup achat acquist compras beszerz inkop inkoop indkob buyer sourcing',
  ],
  [
    'sales',
    'sales vertrieb verkauf prodej predaj obchod sprzedaz handlow vente commercial vendit ventas ertekesit forsaljning verkoop salg export account. key.',
  ],
  [
    'finance',
    'financ finanz account accounting buchhalt ucetn uctovn ksiegow comptab contab penzugy ekonomi controll payroll treasur cfo.',
  ],
  [
    'logistics',
    'logist warehouse lager sklad magazyn entrepot dispatch versand expedic transport fleet disponent supply.',
  ],
  [
    'engineering',
    'engineer konstruk design entwickl vyvoj rozwoj technick technisch development research ingenieur project. projekt environmental cto.',
  ],
  [
    'production',
    'production produkt vyrob wyrob produkcj produccion produzion termel tillverk fertigung works werk betrieb plant. shift smen maintenance wartung udrzb quality qualit kvalit line. technical shop. workshop. coo.',
  ],
  [
    'administration',
    'personnel personal. human. hr. office. reception administrat recepc verwaltung assistant sekret secret it.',
  ],
  [
    'management',
    'managing owner founder ceo. geschaftsfuhr gerant gerent delegato administrador bestuurder toimitusjohtaj vd. zarzad jednatel konatel vorstand prezes president inhaber majitel wlasciciel general. director. direktor. executive management',
  ],
];

/** What a title says; null where it says nothing of it. */
export interface TitleRead {
  department: string | null;
  level: Level | null;
}

const stemsOf = (text: string) => text.split(' ').filter(Boolean);
const LEVEL_TABLE = LEVEL_STEMS.map(([level, stems]) => [level, stemsOf(stems)] as const);
const DEPARTMENT_TABLE = DEPARTMENT_STEMS.map(([department, stems]) => [department, stemsOf(stems)] as const);

/** Reads department and level from a title as a source words it. */
export function readTitle(title: string): TitleRead {
  const words = foldedWords(title);
  const has = (stems: readonly string[]) =>
    words.some((word) =>
      stems.some((stem) => {
        if (stem.startsWith('*')) return word.endsWith(stem.slice(1));
        return stem.endsWith('.') ? word === stem.slice(0, -1) : word.startsWith(stem);
      }),
    );
  const helps = has(HELPERS);
  const level = helps ? 'specialist' : (LEVEL_TABLE.find(([, stems]) => has(stems))?.[0] ?? null);
  const department = DEPARTMENT_TABLE.find(([, stems]) => has(stems))?.[0] ?? null;
  return {
    department: helps && department === 'management' ? 'administration' : department,
    level,
  };
}
