import type { CountryGroup } from '../core/geo/country-groups.ts';
import type { Plane } from '../core/tally/plane.ts';
import type { Tape } from '../core/tape/nodes.ts';
import type {
  BreakdownAnswer,
  ChartAnswer,
  ClustersAnswer,
  InhabitantsAnswer,
  StandingAnswer,
  SummaryAnswer,
} from './market.ts';
import type {
  AddedAnswer,
  AlternativesAnswer,
  CategoryCounts,
  CitiesAnswer,
  CodeAnswer,
  CodesCounts,
  ColumnSetView,
  Contact,
  CompletionsAnswer,
  ContactsAnswer,
  ExportView,
  FoundAnswer,
  HealthAnswer,
  Job,
  JobAnswer,
  JumpAnswer,
  KeyedCounts,
  ListView,
  NearCounts,
  NoteAnswer,
  PlaceCounts,
  PointsAnswer,
  PositionAnswer,
  ProfileAnswer,
  RangeCounts,
  RecordAnswer,
  RowsAnswer,
  SavedTapeView,
  SourceView,
  SqlAnswer,
  TownCounts,
  TownsAnswer,
  TypedAnswer,
  UploadAnswer,
  WordedTally,
} from './responses.ts';
import type { SettingsBody } from './settings.ts';

/** A job that was begun. */
interface Begun {
  job: Job;
}

/** What each call answers where all is as it was wished; those that answer a file or nothing are not among them. The schemas of the API's description are made of this by `npm run answers`. */
export interface Answers {
  'post /tally': WordedTally;
  'post /counts':
    CategoryCounts | CodesCounts | RangeCounts | KeyedCounts | PlaceCounts | TownCounts | NearCounts;
  'post /alternatives': AlternativesAnswer;
  'post /plane': Plane;
  'post /rows': RowsAnswer;
  'post /position': { position: PositionAnswer['position'] };
  'post /picked': { count: number };
  'post /typed': TypedAnswer;
  'post /complete': CompletionsAnswer;
  'post /sql': SqlAnswer;
  'get /jump': JumpAnswer;
  'get /codes/{scheme}/{code}': CodeAnswer;
  'get /companies/{key}': ProfileAnswer;
  'get /companies/{key}/standing': StandingAnswer;
  'get /companies/{key}/contacts': { contacts: Contact[] };
  'get /records/{subject}/{key}': RecordAnswer;
  'post /breakdown': BreakdownAnswer;
  'post /charts': { charts: ChartAnswer[] };
  'post /summary': SummaryAnswer;
  'post /find': FoundAnswer;
  'post /clusters': ClustersAnswer;
  'post /points': PointsAnswer;
  'get /inhabitants': InhabitantsAnswer;
  'get /towns': TownsAnswer;
  'get /cities': CitiesAnswer;
  'get /sources': { sources: SourceView[] };
  'post /uploads': UploadAnswer;
  'post /uploads/{id}/preview': UploadAnswer;
  'post /uploads/{id}/readings': { job: Job };
  'post /sources': Begun;
  'delete /sources/{key}': Begun;
  'post /demo': Begun;
  'get /jobs': { jobs: Job[] };
  'get /jobs/{id}': JobAnswer;
  'post /jobs/{id}/cancel': { cancelling: true };
  'get /contacts': ContactsAnswer;
  'post /contacts': { book: string; contacts: number; found: number };
  'get /exports': { exports: ExportView[] };
  'post /exports': { export: string; job: Job };
  'get /exports/{id}': { export: ExportView };
  'get /tapes': { tapes: SavedTapeView[] };
  'get /opening': { tape: Tape | null };
  'post /tapes': { tape: SavedTapeView };
  'get /tapes/{id}': { tape: SavedTapeView };
  'put /tapes/{id}': { tape: SavedTapeView };
  'post /addresses': { id: string };
  'get /addresses/{id}': { tape: Tape };
  'get /lists': { lists: ListView[] };
  'post /lists': { list: ListView };
  'put /lists/{key}': { list: ListView };
  'post /lists/{key}/members': AddedAnswer;
  'delete /lists/{key}/members': { removed: number; list: ListView };
  'delete /lists/{key}/additions/{at}': { removed: number; list: ListView };
  'get /country-groups': { ready: CountryGroup[]; own: CountryGroup[] };
  'put /country-groups/{key}': { own: CountryGroup[] };
  'get /column-sets': { sets: ColumnSetView[] };
  'post /column-sets': { set: ColumnSetView };
  'put /column-sets/{id}': { set: ColumnSetView };
  'get /notes/{subject}/{key}': NoteAnswer;
  'put /notes/{subject}/{key}': NoteAnswer;
  'get /health': HealthAnswer;
  'get /settings': SettingsBody;
  'put /settings': SettingsBody;
  'patch /settings': SettingsBody;
}
