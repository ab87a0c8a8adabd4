import type {
  BatchPreviewAnswer,
  BatchSearchView,
  BatchView,
  ChangesAnswer,
  NoticesAnswer,
  PlanAnswer,
  RunsAnswer,
  RunView,
  WatchView,
  WhenAnswer,
} from './runs.ts';
import type {
  AroundAnswer,
  DeliveredAnswer,
  GatherAnswer,
  GatheredAnswer,
  GathererAnswer,
  GatherRunAnswer,
  LookAnswer,
  PageAnswer,
  PagesAnswer,
} from './gather-views.ts';
import type { NearAnswer, PartingAnswer } from './steering.ts';
import type { CheckAnswer, CheckView } from './checks.ts';
import type {
  AddedAnswer,
  AgainstListAnswer,
  BeforeAddingAnswer,
  DescribedAnswer,
  JudgedAnswer,
  ListRollAnswer,
  ListShare,
  ListView,
  ListsAnswer,
  MemberView,
  OverlapAnswer,
  PaceAnswer,
  TakenAnswer,
  CarriedCounts,
} from './lists.ts';
import type {
  BeforeExportAnswer,
  ExportStepAnswer,
  HandedAnswer,
  ExportTemplateView,
  ReceiverView,
  ExportView,
} from './export-views.ts';
import type { FolderView, HookView, HostView, NewFeed, ProgramsAnswer } from './program-views.ts';
import type {
  DoublesAnswer,
  JoinsAnswer,
  MatchAnswer,
  MatchesAnswer,
  MatchListAnswer,
  MatchPairAnswer,
  MatchRowsAnswer,
  SettledAnswer,
} from './matches.ts';
import type { PrecedenceAnswer } from './own-values.ts';
import type { OutreachSettingsBody } from './outreach.ts';
import type {
  AddresseesAnswer,
  CampaignAnswer,
  FiguresAnswer,
  MessageView,
  OutboxAnswer,
  OutboxState,
  OutreachAnswer,
  ProofView,
  PutOutAnswer,
  RepliesAnswer,
  ReplyView,
  TemplateView,
  WritingAnswer,
  CompanyWrittenAnswer,
  MorePeopleAnswer,
  WrittenToAnswer,
} from './outreach-views.ts';
import type { CountryGroup } from '../core/geo/country-groups.ts';
import type { PersonAboutAnswer, TitlesAnswer } from './people.ts';
import type { RightPersonChoice } from '../core/people/functions.ts';
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
  AlternativesAnswer,
  CategoryCounts,
  CitiesAnswer,
  CodeAnswer,
  CodesCounts,
  ColumnSetView,
  Contact,
  CompletionsAnswer,
  ContactsAnswer,
  FoundAnswer,
  HealthAnswer,
  Job,
  JobAnswer,
  JumpAnswer,
  KeyedCounts,
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
  SourceChangesAnswer,
  SourceView,
  SqlAnswer,
  TownCounts,
  TownsAnswer,
  TypedAnswer,
  UploadAnswer,
  WordedTally,
} from './responses.ts';
import type { Settings } from '../core/settings.ts';
import type { VisitsAnswer } from './visits.ts';

/** A job that was begun. */
interface Begun {
  job: Job;
}

/** What each call answers where all is as it was wished; those that answer a file or nothing are not among them. The schemas of the API's description are made of this by `npm run answers`. */
export interface Answers {
  'post /tally': WordedTally;
  'post /counts':
    | CarriedCounts
    | CategoryCounts
    | CodesCounts
    | RangeCounts
    | KeyedCounts
    | PlaceCounts
    | TownCounts
    | NearCounts;
  'post /alternatives': AlternativesAnswer;
  'post /plane': Plane;
  'post /rows': RowsAnswer;
  'post /position': { position: PositionAnswer['position'] };
  'post /picked': { count: number };
  'post /near': NearAnswer;
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
  'get /sources/{key}/changes': SourceChangesAnswer;
  'post /sources/{key}/list': MatchListAnswer;
  'get /matches': MatchesAnswer;
  'post /matches': Begun;
  'get /matches/{id}': MatchAnswer;
  'get /matches/{id}/rows': MatchRowsAnswer;
  'get /matches/{id}/rows/{row}': MatchPairAnswer;
  'put /matches/{id}/rows': SettledAnswer;
  'post /matches/{id}/again': Begun;
  'post /matches/{id}/list': MatchListAnswer;
  'get /doubles': DoublesAnswer;
  'post /doubles': Begun;
  'post /doubles/join': Begun;
  'post /companies/{key}/corrections': Begun;
  'post /websites/try': Begun;
  'post /coverage': Begun;
  'get /precedence': PrecedenceAnswer;
  'put /precedence': Begun;
  'get /companies/{key}/joins': JoinsAnswer;
  'post /companies/{key}/apart': Begun;
  'get /jobs': { jobs: Job[] };
  'get /jobs/{id}': JobAnswer;
  'post /jobs/{id}/cancel': { cancelling: true };
  'get /contacts': ContactsAnswer;
  'post /contacts': { book: string; contacts: number; found: number };
  'get /exports': { exports: ExportView[] };
  'post /exports/before': BeforeExportAnswer;
  'post /exports': { export: string; job: Job };
  'get /exports/{id}': { export: ExportView };
  'post /exports/before/step': ExportStepAnswer;
  'post /exports/{id}/again': { export: string; job: Job };
  'post /exports/{id}/restore': { export: ExportView };
  'get /handed/{subject}/{key}': HandedAnswer;
  'get /receivers': { receivers: ReceiverView[] };
  'get /export-templates': { templates: ExportTemplateView[] };
  'post /export-templates': { template: ExportTemplateView };
  'put /export-templates/{id}': { template: ExportTemplateView };
  'get /runs': RunsAnswer;
  'post /runs/when': WhenAnswer;
  'post /runs/compare': ChangesAnswer;
  'post /plans': PlanAnswer;
  'get /plans/{key}': PlanAnswer;
  'put /plans/{key}': PlanAnswer;
  'post /plans/{key}/restore': PlanAnswer;
  'post /plans/{key}/run': { run: RunView };
  'get /runs/{id}': { run: RunView };
  'post /runs/{id}/cancel': { run: RunView };
  'get /runs/{id}/changes': ChangesAnswer;
  'get /runs/{id}/tape': ExportStepAnswer;
  'get /runs/{id}/searches': { searches: BatchSearchView[] };
  'post /runs/{id}/list': MatchListAnswer;
  'post /demo/month': { job: Job };
  'post /batches': { batch: BatchView };
  'post /batches/pasted': { batch: BatchView };
  'get /batches/{id}': { batch: BatchView };
  'post /batches/{id}/preview': BatchPreviewAnswer;
  'get /watches': { watches: WatchView[] };
  'put /watches': { watch: WatchView };
  'get /notices': NoticesAnswer;
  'post /notices/read': { unread: number };
  'put /notices/settings': { settings: NoticesAnswer['settings'] };
  'get /gather': GatherAnswer;
  'post /gather/gatherers': GathererAnswer;
  'get /gather/gatherers/{id}': GathererAnswer;
  'put /gather/gatherers/{id}': GathererAnswer;
  'post /gather/gatherers/{id}/pages': PageAnswer;
  'post /gather/gatherers/{id}/pasted': PagesAnswer;
  'post /gather/gatherers/{id}/saved': PagesAnswer;
  'post /gather/look': LookAnswer;
  'post /gather/around': AroundAnswer;
  'put /gather/hosts': Pick<GatherAnswer, 'hosts'>;
  'post /gather/gatherers/{id}/runs': GatherRunAnswer;
  'get /gather/runs/{id}': GatherRunAnswer;
  'post /gather/runs/{id}/act': GatherRunAnswer;
  'get /gather/runs/{id}/rows': GatheredAnswer;
  'post /gather/runs/{id}/deliver': DeliveredAnswer;
  'get /programs': ProgramsAnswer;
  'post /feeds': NewFeed;
  'post /folders': { folder: FolderView };
  'put /hosts': { hosts: HostView[] };
  'post /hooks': { hook: HookView };
  'post /deliveries/{id}/again': { waiting: boolean };
  'post /tape-files': { tape: Tape };
  'get /tapes': { tapes: SavedTapeView[] };
  'get /opening': { tape: Tape | null };
  'post /tapes': { tape: SavedTapeView };
  'get /tapes/{id}': { tape: SavedTapeView };
  'put /tapes/{id}': { tape: SavedTapeView };
  'post /addresses': { id: string };
  'get /addresses/{id}': { tape: Tape };
  'get /lists': ListsAnswer;
  'post /lists': { list: ListView };
  'get /lists/{key}': ListRollAnswer;
  'get /lists/{key}/pace': PaceAnswer;
  'get /lists/{key}/addresses': { addresses: string[] };
  'put /lists/{key}/addresses': { list: ListView };
  'get /lists/{key}/shares': { shares: ListShare[] };
  'put /lists/{key}': { list: ListView };
  'post /lists/{key}/restore': { list: ListView };
  'post /lists/before': BeforeAddingAnswer;
  'post /lists/{key}/members': AddedAnswer;
  'delete /lists/{key}/origins/{ids}': { removed: number; list: ListView };
  'delete /lists/{key}/members': TakenAnswer;
  'delete /lists/{key}/taken/{id}': { back: number; list: ListView };
  'post /lists/{key}/copies': AddedAnswer;
  'post /lists/{key}/verdicts': JudgedAnswer;
  'delete /lists/{key}/verdicts/{batch}': { back: number; list: ListView };
  'post /lists/{key}/details': DescribedAnswer;
  'delete /lists/{key}/details/{undo}': { back: number };
  'get /memberships/{subject}/{key}': { memberships: MemberView[] };
  'post /lists/overlap': OverlapAnswer;
  'post /lists/combine': { list: ListView };
  'get /lists/{key}/parting': PartingAnswer;
  'post /lists/{key}/against': AgainstListAnswer;
  'post /checks/of': { checks: CheckView[] };
  'post /checks': CheckAnswer;
  'get /checks/{id}': CheckAnswer;
  'put /checks/{id}': CheckAnswer;
  'post /checks/{id}/more': CheckAnswer;
  'post /checks/{id}/verdicts': CheckAnswer;
  'post /checks/{id}/to-list': { judged: number; batches: number[] };
  'get /country-groups': { ready: CountryGroup[]; own: CountryGroup[] };
  'put /country-groups/{key}': { own: CountryGroup[] };
  'get /right-people': { ready: RightPersonChoice[]; own: RightPersonChoice[] };
  'put /right-people/{key}': { own: RightPersonChoice[] };
  'get /column-sets': { sets: ColumnSetView[] };
  'post /column-sets': { set: ColumnSetView };
  'put /column-sets/{id}': { set: ColumnSetView };
  'get /notes/{subject}/{key}': NoteAnswer;
  'put /notes/{subject}/{key}': NoteAnswer;
  'get /outreach': OutreachAnswer;
  'put /outreach/settings': { settings: OutreachSettingsBody; outbox: OutboxState };
  'put /outreach/server': { outbox: OutboxState };
  'delete /outreach/server': { outbox: OutboxState };
  'post /outreach/templates': { template: TemplateView };
  'put /outreach/templates/{id}': { template: TemplateView };
  'post /outreach/proofs': { proof: ProofView };
  'put /outreach/proofs/{id}': { proof: ProofView };
  'get /outreach/outbox': OutboxAnswer;
  'post /outreach/outbox/cancel': OutboxAnswer & { taken: number[] };
  'post /outreach/outbox/pause': OutboxAnswer;
  'get /outreach/replies': RepliesAnswer;
  'post /outreach/replies': { reply: ReplyView | null };
  'patch /outreach/replies/{id}': { reply: ReplyView };
  'get /outreach/figures': FiguresAnswer;
  'post /outreach/addresses': Begun;
  'get /people/titles': TitlesAnswer;
  'post /people/titles': { job: Job };
  'get /people/{key}/about': PersonAboutAnswer;
  'get /people/{key}/written': WrittenToAnswer;
  'get /companies/{key}/written': CompanyWrittenAnswer;
  'post /campaigns': CampaignAnswer;
  'get /campaigns/{id}': CampaignAnswer;
  'patch /campaigns/{id}': CampaignAnswer;
  'post /campaigns/{id}/people': MorePeopleAnswer;
  'delete /campaigns/{id}/people': CampaignAnswer & { removed: number };
  'get /campaigns/{id}/people': AddresseesAnswer;
  'get /campaigns/{id}/without': { companies: string[] };
  'post /campaigns/{id}/left-out': CampaignAnswer & { changed: number };
  'get /campaigns/{id}/messages/{person}': WritingAnswer;
  'put /campaigns/{id}/messages/{person}': { message: MessageView };
  'post /campaigns/{id}/check': Begun;
  'post /campaigns/{id}/outbox': PutOutAnswer;
  'post /visits': VisitsAnswer;
  'get /health': HealthAnswer;
  'get /settings': Settings;
  'put /settings': Settings;
  'patch /settings': Settings;
}
