import {
  MutationCache,
  QueryClient,
  type InvalidateOptions,
  type InvalidateQueryFilters,
  type QueryKey,
} from '@tanstack/react-query';
import createClient from 'openapi-fetch';
import { every, keys } from './keys';
import { builtOn, noticed, onNews, page } from './news';
import { letGo } from './press';
import type { components, paths } from './schema';

type S = components['schemas'];
export type Project = S['ProjectOut'];
export type ProjectLine = S['ProjectLineOut'];
export type Cloth = S['ClothOut'];
export type Piece = S['PieceOut'];
export type Figure = S['FigureOut'];
export type Stage = S['StageOut'];
export type Lay = S['LayOut'];
export type Job = S['JobOut'];
export type Drawing = S['DrawingOut'];
export type Shape = S['ShapeOut'];
export type Stretch = Drawing['stretches'][number];
export type Gesture = S['HandIn'];
export type Place = S['NearOut'];
export type Bands = { low: number; high: number; runs: [number, number][] }[];
export type Aside = S['AsideOut'];
export type Length = S['LengthOut'];
export type Outline = S['OutlineOut'];
export type Draft = S['DraftOut'];
export type Telling = S['Telling'];
export type Sheet = S['SheetOut'];
export type SheetPiece = S['SheetPieceOut'];
export type Pages = S['PagesOut'];
export type Ease = S['EaseOut'];
export type NotRead = S['NotReadOut'];
export type Outcomes = S['OutcomesOut'];
export type Measurable = S['MeasurableOut'];
export type Learned = S['TaughtOut'];
export type Complaint = 'twist' | 'short' | 'narrow' | 'bars' | 'pucker' | 'dye';
export type LogTold = S['ToldOut'];
export type ArchiveTaken = S['ArchiveOut'];
export type Taken = S['TakenOut'];
export type TakenPiece = S['TakenPieceOut'];
export type Choices = S['ChoicesOut'];
export type Known = S['KnownOut'];
export type Shrink = S['ShrinkOut'];
export type Row = S['RowOut'];
export type Cycle = S['CycleOut'];
export type Advice = S['AdviceOut'];
export type Use = S['UseOut'];
export type NewUse = S['NewUse'];
export type CutChange = S['CutChange'];
export type Cut = S['CutOut'];
export type Runs = S['RunsIn']['runs'];
export type ClothSet = S['SetOut'];
export type CupboardLine = S['CupboardLineOut'];
export type Flaw = S['FlawOut'];
export type Washday = S['WashdayOut'];
export type Load = S['LoadOut'];
export type LoadTask = S['LoadTaskOut'];
export type BarsFound = S['BarsOut'];
export type Settings = S['SettingsOut'];
export type Bar = S['BarOut'];
export type ProjectChange = S['ProjectChange'];
export type PurchaseChange = S['PurchaseChange'];
export type LayWishes = S['LayWishes'];
export type ClothChange = S['ClothChange'];
export type SwatchChange = S['SwatchIn'];
export type Match = S['MatchOut'];
export type Seam = S['SeamOut'];
export type SeamPiece = S['SeamPieceOut'];
export type SewnEdge = S['SewnEdgeOut'];
export type SeamChange = S['SeamChange'];
export type Strip = S['StripOut'];
export type Preview = S['PreviewOut'];
export type LaidBars = S['LaidBarsOut'];
export type Trials = S['TrialsOut'];
export type SmallLay = S['SmallLayOut'];
export type Offer = S['OfferOut'];
export type Offers = S['OffersOut'];
export type OfferChange = S['OfferChange'];
export type NewOffer = S['NewOffer'];
export type Together = S['TogetherOut'];
export type WillItDo = S['WillItDoOut'];
export type Envelope = S['EnvelopeOut'];
export type EnvelopeChange = S['EnvelopeIn'];
export type Strips = S['StripsOut'];
export type StripsChange = S['StripsIn'];
export type ShopList = S['ListOut'];
export type PieceChange = S['PieceChange'];
export type True = S['TrueOut'];
export type TrueKept = S['TrueKeptOut'];
export type TrueChange = S['TrueChange'];
export type Twist = S['TwistOut'];
export type FoldLine = S['FoldLineOut'];
export type Cutting = S['CuttingOut'];
export type BeforeLine = S['BeforeLineOut'];
export type TableStep = S['TableStepOut'];
export type CutRound = S['RoundOut'];
export type CutShape = S['CutShapeOut'];
export type AgainWay = S['AgainWayOut'];
export type ClothLeft = S['ClothLeftOut'];
export type Remnant = S['RemnantOut'];
export type CutDeed = S['DeedIn'];
type ErrorBody = S['ErrorOut'];

let before: Promise<unknown> = Promise.resolve();

/** Changes are sent one after another, so that the answer that comes last is the newest. A question waits for none. */
function inOrder(request: Request): Promise<Response> {
  if (request.method === 'GET' || new URL(request.url).pathname === '/api/lengths/read') return fetch(request);
  const sent = before.then(() => fetch(request));
  before = sent.then((answer) => answer.clone().arrayBuffer()).catch(() => undefined);
  return sent;
}

export const api = createClient<paths>({ baseUrl: '', fetch: inOrder });

/** Whether what is being kept was typed by a digital tape; the server writes it beside the reading. */
export const readWith = { device: false };

/** Of which list the page undoes: a garment's, or that of bench and cupboard (null). */
export const listShown = () => {
  const found = /^\/projects\/(\d+)(\/|$)/.exec(location.pathname)?.[1];
  return found === undefined ? null : Number(found);
};

/** By this the server knows that a change is asked for by its own page. */
const word = document.querySelector<HTMLMetaElement>('meta[name="page-word"]')?.content ?? '';

let sure = false;

/** A change the person insists on after it was asked back. */
export function insisting<T>(change: () => Promise<T>): Promise<T> {
  sure = true;
  try {
    return change();
  } finally {
    sure = false;
  }
}

api.use({
  onRequest({ request }) {
    request.headers.set('X-Window', page.window);
    if (request.method !== 'GET') request.headers.set('X-Page', word);
    if (request.method !== 'GET') request.headers.set('X-Seen', String(builtOn()));
    if (request.method !== 'GET') request.headers.set('X-List', String(listShown() ?? 'house'));
    if (sure) request.headers.set('X-Insist', '1');
    if (readWith.device && request.method !== 'GET') request.headers.set('X-Read-With', 'device');
  },
  onResponse({ request, response }) {
    // this device was never let in, or is no longer
    if (response.status === 401 && location.pathname !== '/pair') location.assign('/pair');
    const newest = response.headers.get('X-News');
    if (newest !== null) noticed(Number(newest));
    const undo = response.headers.get('X-Undo');
    // of the list it was asked with: meanwhile the page may have gone on to another one
    const list = request.headers.get('X-List');
    if (undo !== null) queries.setQueryData(keys.undo(list === 'house' ? null : Number(list)), JSON.parse(undo));
  },
});

/** A change that is kept: the head of the page tells how far it is. */
const KEPT = { kept: true };

/** Every change goes through it, and so every change is told at the head of the page. */
const changes = new MutationCache({
  onMutate: (_, mutation) => {
    if (mutation.meta === KEPT) saving.set({ state: 'saving' });
  },
  onSuccess: (_data, _given, _context, mutation) => {
    if (mutation.meta !== KEPT) return;
    saving.set({ state: 'saved', at: new Date() });
    // of the list that is shown the answer brought it; the others are asked for when they are
    void queries.invalidateQueries({ ...every('undo'), refetchType: 'none' });
  },
  onError: (_error, _given, _context, mutation) => {
    if (mutation.meta === KEPT) saving.set({ state: 'failed' });
  },
});

const refused = (error: Error) => error instanceof Refusal && error.status >= 400 && error.status < 500;

/** What is on its way for the first time was asked before something changed, and may not know of it: it is asked anew.
 * The library itself takes such an answer for the new one. */
class Queries extends QueryClient {
  override async invalidateQueries<Key extends QueryKey = QueryKey>(
    filters?: InvalidateQueryFilters<Key>,
    options?: InvalidateOptions,
  ): Promise<void> {
    // where nothing is asked again, what is on its way is all that will come
    if (filters?.refetchType !== 'none') {
      const first = this.getQueryCache()
        .findAll(filters)
        .filter((query) => query.state.data === undefined);
      if (first.length > 0) await Promise.all(first.map((query) => query.cancel({ revert: true })));
    }
    return super.invalidateQueries(filters, options);
  }
}

export const queries = new Queries({
  mutationCache: changes,
  defaultOptions: {
    // the server is on this machine: a browser that is off line reaches it all the same; what it refused it would
    // refuse again, and nobody waits for that
    queries: {
      retry: (times, error) => times < 1 && !refused(error),
      staleTime: 5_000,
      refetchOnWindowFocus: false,
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

onNews(() => queries.invalidateQueries());

/** A refusal by the server: a sentence, and a sentence per entry. */
export class Refusal extends Error {
  readonly fields: { path: string; message: string }[];
  readonly status: number;
  /** of which kind it is: “asked” is kept when it is said once more */
  readonly code: string;
  /** what another window changed meanwhile: as it is there, and as it was sent */
  readonly both: { path: string; name: string; theirs: string; mine: string }[];
  constructor(body: Partial<ErrorBody> | undefined, status: number) {
    super(body?.message ?? 'The server did not answer. What you typed is kept here; try again.');
    this.fields = body?.fields ?? [];
    this.status = status;
    this.code = body?.code ?? '';
    this.both = body?.both ?? [];
  }
  /** The sentence for one entry, or the whole one when it is about nothing else. */
  about(path: string): string | undefined {
    return this.fields.find((f) => f.path === path)?.message;
  }
}

/** Every list of numbers in the interface is a pair; the client library forgets that when it reads the types. */
type Paired<T> = T extends number[]
  ? [number, number]
  : T extends (infer U)[]
    ? Paired<U>[]
    : T extends object
      ? { [K in keyof T]: Paired<T[K]> }
      : T;
type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

/** The data of an answer, or the refusal thrown. */
export async function unwrap<T>(call: Call<T>): Promise<Paired<T>> {
  let answer;
  try {
    answer = await call;
  } catch {
    await letGo();
    throw new Refusal(undefined, 0);
  }
  await letGo();
  if (answer.data === undefined)
    throw new Refusal(answer.error as Partial<ErrorBody> | undefined, answer.response.status);
  return answer.data as Paired<T>;
}

/** What is told about saving, at the top right. */
type SaveState = { state: 'idle' | 'saving' | 'saved' | 'failed'; at?: Date };
let saveState: SaveState = { state: 'idle' };
const listeners = new Set<() => void>();
export const saving = {
  get: () => saveState,
  set(next: SaveState) {
    saveState = next;
    for (const listener of listeners) listener();
  },
  subscribe(listener: () => void) {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};

/** A change: told as saved only when the server has said so. */
export function saved<T>(call: Call<T>): Promise<Paired<T>> {
  return changes.build(queries, { mutationFn: () => unwrap(call), meta: KEPT, gcTime: 0 }).execute(undefined);
}
