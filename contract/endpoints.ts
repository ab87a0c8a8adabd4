import { AgainstBody, ChartsBody, ClustersBody, FindBody, SummaryBody } from './market-requests.ts';
import { AtLeastBody, CheckBody, FitBody, MoreBody, ToListBody } from './checks.ts';
import { ChangesListBody, DemoBody, LoadBody, PreviewBody, WholeReadingBody } from './load-requests.ts';
import {
  AddBody,
  CombineBody,
  CopyBody,
  DetailsBody,
  ListBody,
  ListChangeBody,
  OverlapBody,
  VerdictBody,
} from './lists.ts';
import { ApartBody, MatchBody, MatchFileBody, MatchListBody, SettleBody } from './matches.ts';
import { ColumnSetBody, NoteBody } from './own-requests.ts';
import {
  CampaignBody,
  CampaignChangeBody,
  CancelBody,
  CheckAddressesBody,
  ChosenPeopleBody,
  LeftOutBody,
  MailServerBody,
  MessageBody,
  OutboxBody,
  OutreachSettingsBody,
  PauseBody,
  ProofBody,
  ReplyChangeBody,
  SeenBody,
  TemplateBody,
} from './outreach.ts';
import { PaperBody } from './paper-requests.ts';
import {
  AlternativesBody,
  CompleteBody,
  CountryGroupBody,
  CountsBody,
  PlaneBody,
  PointsBody,
  PositionBody,
  SavedTapeBody,
  SqlBody,
  TypedBody,
} from './requests.ts';
import {
  AroundBody,
  DeliverRunBody,
  FetchPageBody,
  GathererBody,
  GatherHostBody,
  LookBody,
  PastedBody,
  RunActBody,
  RunWishBody,
} from './gather.ts';
import { AgainBody, BeforeExportBody, ExportBody, ExportStepBody, ExportTemplateBody } from './exports.ts';
import { AgainDeliveryBody, FeedBody, FolderBody, HookBody, HostBody } from './programs.ts';
import { PicksBody, RowsBody } from './row-requests.ts';
import { NearBody } from './steering.ts';
import { TapeBody } from './tape-body.ts';
import { SettingsBody } from './settings.ts';
import { VisitsBody } from './visits.ts';

/** One call of the API. Parts of the path in braces are texts; bodies are checked by their class. */
export interface Endpoint {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Below /api. */
  path: string;
  /** What it answers or does, in a few words. */
  does: string;
  body?: new () => object;
  /** A file instead of a body, as the part "file" of a form. */
  upload?: true;
  query?: readonly string[];
  /** Of an answer that is as wished; 200 where left out. */
  status?: 200 | 201 | 202 | 204;
  /** The kind of a file that is answered instead of JSON. */
  file?: string;
}

type More = Omit<Endpoint, 'method' | 'path' | 'does'>;
const call =
  (method: Endpoint['method']) =>
  (path: string, does: string, more: More = {}): Endpoint => ({ method, path, does, ...more });
const [get, post, put, patch, remove] = [
  call('get'),
  call('post'),
  call('put'),
  call('patch'),
  call('delete'),
];
/** What takes long is a job, whose progress is asked for by its id. */
const JOB = 202;
const MADE = 201;
const GONE = { status: 204 } as const;

/** Every call of the API; a test holds the list to the routes of the server. */
export const ENDPOINTS: readonly Endpoint[] = [
  post('/tally', 'all figures of a tape', { body: TapeBody }),
  post('/counts', 'counts by value in the context of all lines but one', { body: CountsBody }),
  post('/alternatives', 'what the tape would leave with other tests on a line', { body: AlternativesBody }),
  post('/near', 'lines turned so that the tape leaves about a number', { body: NearBody }),
  post('/plane', 'companies by headcount and revenue', { body: PlaneBody }),
  post('/rows', 'rows of what is left, in an order', { body: RowsBody }),
  post('/position', 'where a record stands in the order of a tape', { body: PositionBody }),
  post('/picked', 'how many of the records picked pass the tape', { body: PicksBody }),
  post('/typed', 'the lines that a text says', { body: TypedBody }),
  post('/complete', 'what a text may become, with what each would leave', { body: CompleteBody }),
  post('/sql', 'the same count as SQL', { body: SqlBody }),
  get('/fields', 'the field registry'),
  get('/jump', 'companies, people, brands, deals, tapes and lists by name', { query: ['text'] }),
  get('/codes/{scheme}/{code}', 'a code with its note, its kin and what it is often filed with'),
  get('/companies/{key}', 'a company and what each of its records says'),
  get('/companies/{key}/standing', 'percentiles of a company within its industry group', {
    query: ['currency'],
  }),
  get('/companies/{key}/contacts', 'whom we know at a company'),
  get('/records/{subject}/{key}', 'a site, person, brand, deal or event, and the companies it hangs on'),

  post('/breakdown', 'the ready page: charts, how concentrated, what is known', { body: AgainstBody }),
  post('/charts', 'charts of a tape', { body: ChartsBody }),
  post('/summary', 'by column: how many are known, median and sum', { body: SummaryBody }),
  post('/find', 'positions of names that hold some words', { body: FindBody }),
  post('/clusters', 'what of a tape is in a view of the map', { body: ClustersBody }),
  post('/points', 'coordinates for a small map', { body: PointsBody }),
  get('/inhabitants', 'people living in the towns of each country and region'),
  get('/towns', 'towns by the beginning of their name', { query: ['search'] }),
  get('/cities', 'large towns for the map'),
  post('/papers', 'a page for paper', { body: PaperBody, file: 'application/pdf' }),

  get('/sources', 'the loaded sources'),
  post('/uploads', 'how a file is recognised, and its first rows', { upload: true, status: MADE }),
  post('/uploads/{id}/preview', 'the same file read otherwise', { body: PreviewBody }),
  post(
    '/uploads/{id}/readings',
    'reads the whole file as it would be loaded; the result of the job says what it comes to',
    {
      body: WholeReadingBody,
      status: JOB,
    },
  ),
  post('/sources', 'loads an uploaded file as a source', { body: LoadBody, status: JOB }),
  get('/sources/{key}/changes', 'companies that the last newer version of a source touched', {
    query: ['what'],
  }),
  post('/sources/{key}/list', 'a list of those companies, with what changed of each', {
    body: ChangesListBody,
    status: MADE,
  }),
  get('/matches', 'files lined up with the universe, with how many rows were found'),
  post('/matches', 'line an uploaded file up with the universe, as a job', { body: MatchBody, status: JOB }),
  get('/matches/{id}', 'a match with its roll and the weights it learned'),
  get('/matches/{id}/rows', 'rows of a match', { query: ['state', 'by', 'moved', 'offset', 'limit'] }),
  get('/matches/{id}/rows/{row}', 'a row with its candidates, field by field'),
  put('/matches/{id}/rows', 'settle rows: a candidate taken, none, or open again', { body: SettleBody }),
  post('/matches/{id}/again', 'match a file again, with the universe as it is now, as a job', {
    status: JOB,
  }),
  post('/matches/{id}/list', 'a list of the companies found', { body: MatchListBody, status: MADE }),
  post('/matches/{id}/file', 'the file with columns of the universe beside', {
    body: MatchFileBody,
    file: 'text/csv',
  }),
  remove('/matches/{id}', 'remove a match', GONE),
  get('/doubles', 'companies that the universe may have twice: the last search for them'),
  post('/doubles', 'look for companies that the universe has twice, as a job', { status: JOB }),
  post('/doubles/join', 'join the doubles that are sure or settled, as a job', { status: JOB }),
  get('/companies/{key}/joins', 'what was joined to a company'),
  post('/companies/{key}/apart', 'take a record out of a company that it was joined to, as a job', {
    body: ApartBody,
    status: JOB,
  }),
  remove('/sources/{key}', 'removes a source and what only it had', { status: JOB }),
  post('/demo', 'makes the demo universe', { body: DemoBody, status: JOB }),
  get('/jobs', 'jobs that run, and those that ended lately'),
  get('/jobs/{id}', 'how far a job is'),
  post('/jobs/{id}/cancel', 'cancels a job'),
  get('/jobs/{id}/refusals', 'cells that could not be read', { file: 'text/csv' }),
  get('/contacts', 'address books'),
  post('/contacts', 'loads an address book', { upload: true, status: MADE }),
  remove('/contacts/{book}', 'removes an address book', GONE),

  get('/exports', 'exports made'),
  post('/exports/before', 'the roll of an export before it is made: what goes and what stays off', {
    body: BeforeExportBody,
  }),
  post('/exports/before/step', 'the records behind one step of that roll, as a tape', {
    body: ExportStepBody,
  }),
  post('/exports', 'exports a tape, or what was picked of it', { body: ExportBody, status: JOB }),
  get('/exports/{id}', 'one export'),
  get('/exports/{id}/file', 'the file of an export', { file: 'application/octet-stream' }),
  post('/exports/{id}/again', 'makes an export again, with what changed since or without', {
    body: AgainBody,
    status: JOB,
  }),
  remove('/exports/{id}', 'removes an export; it can be had back for 30 days', {
    query: ['forget'],
    ...GONE,
  }),
  post('/exports/{id}/restore', 'puts a removed export back'),
  get('/handed/{subject}/{key}', 'whom a record was handed over to'),
  get('/receivers', 'whom exports went to, and how many records each has had'),
  get('/export-templates', 'templates of exports, those that ship with the program first'),
  post('/export-templates', 'saves a template', { body: ExportTemplateBody, status: MADE }),
  put('/export-templates/{id}', 'saves it anew', { body: ExportTemplateBody }),
  remove('/export-templates/{id}', 'removes a template', GONE),
  get('/gather', 'gatherers, hosts that pages may be read from, and the stand-in directories'),
  post('/gather/gatherers', 'a gatherer', { body: GathererBody, status: MADE }),
  get('/gather/gatherers/{id}', 'a gatherer with its pages and runs'),
  put('/gather/gatherers/{id}', 'what a gatherer reads, changed', { body: GathererBody }),
  remove('/gather/gatherers/{id}', 'removes a gatherer with its runs', GONE),
  post('/gather/gatherers/{id}/pages', 'a page fetched to be pointed at', {
    body: FetchPageBody,
    status: MADE,
  }),
  post('/gather/gatherers/{id}/pasted', 'a table or page that was pasted', {
    body: PastedBody,
    status: MADE,
  }),
  post('/gather/gatherers/{id}/saved', 'pages saved in a file', { upload: true, status: MADE }),
  get('/gather/pages/{id}/view', 'a page as it is safely shown in a frame', { file: 'text/html' }),
  post('/gather/look', 'what a page comes to with what is taught', { body: LookBody }),
  post('/gather/around', 'what may be meant by a place on a page', { body: AroundBody }),
  put('/gather/hosts', 'allows a host that pages may be read from', { body: GatherHostBody }),
  remove('/gather/hosts/{name}', 'a host that is read no more', GONE),
  post('/gather/gatherers/{id}/runs', 'begins a run', { body: RunWishBody, status: MADE }),
  get('/gather/runs/{id}', 'a run with its roll, its searches and its time left'),
  post('/gather/runs/{id}/act', 'pauses a run, stops it, goes on with it, tries failed pages again', {
    body: RunActBody,
  }),
  get('/gather/runs/{id}/rows', 'records of a run, or what came to none', {
    query: ['part', 'search', 'offset', 'limit'],
  }),
  get('/gather/runs/{id}/file', 'the records of a run as a file', {
    query: ['format'],
    file: 'application/octet-stream',
  }),
  post('/gather/runs/{id}/deliver', 'makes a source, a list or posts of the records', {
    body: DeliverRunBody,
    status: JOB,
  }),
  remove('/gather/runs/{id}', 'removes a run with its records', GONE),

  get('/programs', 'other programs that are given what is exported, and what was delivered of late'),
  post('/feeds', 'makes an address under which other programs read what a tape keeps', {
    body: FeedBody,
    status: MADE,
  }),
  get('/feeds/{file}', 'what a feed gives now; the token of its address is its name', {
    file: 'text/csv',
  }),
  remove('/feeds/{id}', 'takes a feed back', GONE),
  post('/folders', 'names a folder of this machine that exports can be copied to', {
    body: FolderBody,
    status: MADE,
  }),
  remove('/folders/{id}', 'names it no longer', GONE),
  put('/hosts', 'allows a host for webhooks', { body: HostBody }),
  remove('/hosts/{name}', 'allows it no longer', GONE),
  post('/hooks', 'makes a webhook', { body: HookBody, status: MADE }),
  remove('/hooks/{id}', 'removes a webhook and what waits for it', GONE),
  post('/deliveries/{id}/again', 'posts to a webhook again', { body: AgainDeliveryBody, status: JOB }),
  post('/tape-files', 'the tape in an export of any format, or in a tape file', { upload: true }),

  get('/tapes', 'saved tapes and parts with what they left then and leave now'),
  get('/opening', 'the tape that the workspace opens with'),
  post('/tapes', 'saves a tape or a part', { body: SavedTapeBody, status: MADE }),
  get('/tapes/{id}', 'one saved tape'),
  put('/tapes/{id}', 'saves it anew', { body: SavedTapeBody }),
  remove('/tapes/{id}', 'removes a saved tape', GONE),
  post('/addresses', 'keeps a tape too long for an address', { body: TapeBody, status: MADE }),
  get('/addresses/{id}', 'a tape kept so'),
  get('/lists', 'lists with what they hold and how they were judged, and those removed lately'),
  post('/lists', 'makes a list', { body: ListBody, status: MADE }),
  get('/lists/{key}', 'a list with its roll: how it came to its members'),
  get('/lists/{key}/pace', 'when the last verdicts on a list were given'),
  get('/lists/{key}/shares', 'lists that share members with one'),
  put('/lists/{key}', 'changes name, purpose, folder and the like of a list', { body: ListChangeBody }),
  remove('/lists/{key}', 'removes a list; it can be had back for 30 days', GONE),
  post('/lists/{key}/restore', 'puts a removed list back'),
  post('/lists/before', 'how many of some records each list has already, and how many are suppressed', {
    body: PicksBody,
    query: ['subject'],
  }),
  post('/lists/{key}/members', 'puts records of a tape on a list', { body: AddBody }),
  remove('/lists/{key}/origins/{ids}', 'takes back what some origins put on a list'),
  remove('/lists/{key}/members', 'takes records of a tape off a list', { body: PicksBody }),
  remove('/lists/{key}/taken/{id}', 'puts back on a list what one act took off it'),
  post('/lists/{key}/copies', 'puts members on another list with their origins', { body: CopyBody }),
  post('/lists/{key}/verdicts', 'gives members a verdict', { body: VerdictBody }),
  remove('/lists/{key}/verdicts/{batch}', 'takes back verdicts given at once'),
  post('/lists/{key}/details', 'changes notes, tags and to whom members are assigned', { body: DetailsBody }),
  remove('/lists/{key}/details/{undo}', 'takes back such a change'),
  get('/memberships/{subject}/{key}', 'the lists that a record is on, with origins and verdicts'),
  post('/lists/overlap', 'how many members some lists share', { body: OverlapBody }),
  post('/lists/combine', 'makes a list of others, that follows them or is fixed', {
    body: CombineBody,
    status: MADE,
  }),
  get('/lists/{key}/parting', 'lines that part members judged in from those judged out'),
  post('/lists/{key}/against', 'holds a list against a tape: who would join and leave', {
    body: TapeBody,
  }),
  post('/checks/of', 'the spot checks of a tape', { body: TapeBody }),
  post('/checks', 'draws a sample of a tape to be judged', { body: CheckBody, status: MADE }),
  get('/checks/{id}', 'a spot check: its sample, and what it says of all of the tape'),
  put('/checks/{id}', 'changes what percent is asked to fit', { body: AtLeastBody }),
  post('/checks/{id}/more', 'draws more by the same seed', { body: MoreBody }),
  post('/checks/{id}/verdicts', 'says whether one of a sample fits', { body: FitBody }),
  post('/checks/{id}/to-list', 'makes what was judged verdicts on a list', { body: ToListBody }),
  remove('/checks/{id}', 'removes a spot check', GONE),
  get('/country-groups', 'ready and own groups of countries'),
  put('/country-groups/{key}', 'keeps a group of countries', { body: CountryGroupBody }),
  remove('/country-groups/{key}', 'removes a group of countries', GONE),
  get('/column-sets', 'column sets of one’s own'),
  post('/column-sets', 'keeps a column set', { body: ColumnSetBody, status: MADE }),
  put('/column-sets/{id}', 'changes a column set', { body: ColumnSetBody }),
  remove('/column-sets/{id}', 'removes a column set', GONE),
  get('/notes/{subject}/{key}', 'one’s own note on a record'),
  put('/notes/{subject}/{key}', 'writes a note; the empty one is none', { body: NoteBody }),

  get('/outreach', 'settings, templates, proofs, campaigns and the outbox'),
  put('/outreach/settings', 'changes what holds for all that is written', { body: OutreachSettingsBody }),
  put('/outreach/server', 'sets one’s own mail server', { body: MailServerBody }),
  remove('/outreach/server', 'goes back to the stand-in'),
  post('/outreach/templates', 'keeps a template', { body: TemplateBody, status: MADE }),
  put('/outreach/templates/{id}', 'changes a template', { body: TemplateBody }),
  remove('/outreach/templates/{id}', 'removes a template', GONE),
  post('/outreach/proofs', 'keeps a proof', { body: ProofBody, status: MADE }),
  put('/outreach/proofs/{id}', 'changes a proof', { body: ProofBody }),
  remove('/outreach/proofs/{id}', 'removes a proof', GONE),
  get('/outreach/outbox', 'what waits to go out, and when it goes'),
  post('/outreach/outbox/cancel', 'takes messages out of the outbox again', { body: CancelBody }),
  post('/outreach/outbox/pause', 'stops the outbox or lets it go on', { body: PauseBody }),
  get('/outreach/replies', 'what came back', { query: ['kind', 'campaign', 'open', 'offset'] }),
  post('/outreach/replies', 'takes a message that came, as a file', { upload: true, status: MADE }),
  patch('/outreach/replies/{id}', 'marks a reply', { body: ReplyChangeBody }),
  get('/outreach/figures', 'what came of messages, by what they share', { query: ['by'] }),
  post('/outreach/addresses', 'makes addresses anew from what came back, as a job', { status: JOB }),
  get('/people/{key}/written', 'what was written to somebody'),
  post('/campaigns', 'a campaign with a draft for each of its people', { body: CampaignBody, status: MADE }),
  get('/campaigns/{id}', 'a campaign with its roll'),
  patch('/campaigns/{id}', 'changes what a campaign asks', { body: CampaignChangeBody }),
  remove('/campaigns/{id}', 'removes a campaign of which nothing went out', GONE),
  post('/campaigns/{id}/people', 'puts more people into a campaign', { body: ChosenPeopleBody }),
  get('/campaigns/{id}/people', 'the people of a campaign, or of a step of its roll', {
    query: ['step', 'offset', 'limit'],
  }),
  get('/campaigns/{id}/without', 'companies where nobody holds any of the functions'),
  post('/campaigns/{id}/left-out', 'leaves people out, or takes them in again', { body: LeftOutBody }),
  get('/campaigns/{id}/messages/{person}', 'the message to somebody, with what is known of them'),
  put('/campaigns/{id}/messages/{person}', 'changes a draft', { body: MessageBody }),
  post('/campaigns/{id}/seen', 'says whose messages were looked at', { body: SeenBody, status: 204 }),
  post('/campaigns/{id}/check', 'asks mail hosts whether they would take addresses, as a job', {
    body: CheckAddressesBody,
    status: JOB,
  }),
  post('/campaigns/{id}/outbox', 'puts messages in the outbox', { body: OutboxBody }),
  get('/campaigns/{id}/file', 'the messages that go out today as files', {
    query: ['format'],
    file: 'application/octet-stream',
  }),
  post('/visits', 'companies in the order of a day’s visits, with times', { body: VisitsBody }),
  post('/visits/calendar', 'the same as an iCalendar file', { body: VisitsBody, file: 'text/calendar' }),
  post('/visits/cards', 'whom to ask for there, as vCards', { body: VisitsBody, file: 'text/vcard' }),

  get('/health', 'whether it runs, and over what'),
  get('/settings', 'settings of the workspace'),
  put('/settings', 'changes the settings', { body: SettingsBody }),
  patch('/settings', 'changes some settings and leaves the others', { body: SettingsBody }),
  get('/metrics', 'its figures in the open text format of metrics', { file: 'text/plain' }),
  get('/openapi.json', 'this description'),
];
