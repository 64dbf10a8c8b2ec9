import { useEffect, useState } from 'react';
import { keys, every } from './keys';
import { hashKey, type QueryClient, type QueryKey, useQuery, useQueryClient } from '@tanstack/react-query';
import { useParams, useSearchParams } from 'react-router';
import {
  api,
  type ClothChange,
  type CutChange,
  type LayWishes,
  type NewUse,
  type Runs,
  type PieceChange,
  type Project,
  type ProjectChange,
  type PurchaseChange,
  saved,
  type SwatchChange,
  unwrap,
  type Washday,
} from './client';

export function useSettings() {
  return useQuery(settingsQuery).data;
}

export function useChoices() {
  return useQuery({ queryKey: keys.choices, queryFn: () => unwrap(api.GET('/api/choices')), staleTime: Infinity }).data;
}

/** Millimetres in one unit of the tape, and its name. */
export function useTape(): { mm: number; unit: string; imperial: boolean } {
  const imperial = useSettings()?.system === 'imperial';
  return imperial ? { mm: 25.4, unit: 'in', imperial } : { mm: 10, unit: 'cm', imperial: false };
}

export function useProjectId(): number {
  return Number(useParams()['projectId']);
}

/** Of a garment's cloths the one the page shows stands in the address; the main one does not need to. */
export const CLOTH = 'of';

/** The cloth an address shows; null for the main one. */
export const clothIn = (search: URLSearchParams) => Number(search.get(CLOTH)) || null;

/** What every question about a garment is asked through: the garment, and which of its cloths the page shows. */
export function useAsked() {
  const id = useProjectId();
  const [search] = useSearchParams();
  const use = clothIn(search);
  return { id, use, key: use ?? ('main' as const), params: { path: { project_id: id }, query: { use } } };
}

/** The address of a page of a garment, seen through one of its cloths; without one through the main one. */
export function pageAt(id: number, stage: string, use: number | null, more: Record<string, string> = {}) {
  const search = new URLSearchParams({ ...more, ...(use ? { [CLOTH]: String(use) } : {}) }).toString();
  return { pathname: `/projects/${id}/${stage}`, search: search && `?${search}` };
}

/** The address of another page of the garment, with the same cloth. */
export function useAt() {
  const { id, use } = useAsked();
  return (stage: string, more: Record<string, string> = {}) => {
    const { pathname, search } = pageAt(id, stage, use, more);
    return pathname + search;
  };
}

/** The part of a page that stands in the address, beside the cloth. */
export function usePart<T extends string>(parts: readonly { value: T }[]): [T, (value: T) => void] {
  const [search, setSearch] = useSearchParams();
  const first = parts[0]!.value;
  const part = parts.find((p) => p.value === search.get('part'))?.value ?? first;
  const choose = (value: T) =>
    setSearch(
      (old) => {
        if (value === first) old.delete('part');
        else old.set('part', value);
        return old;
      },
      { replace: true },
    );
  return [part, choose];
}

export function useProject() {
  const { id, key, params } = useAsked();
  return useQuery({
    queryKey: keys.project(id, key),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}', { params })),
    placeholderData: (old) => (old?.id === id ? old : undefined),
  });
}

/** Under which key a garment is kept: by the cloth it is seen through. */
const seenThrough = (project: Project) => (project.use_id === project.uses[0]?.id ? ('main' as const) : project.use_id);

/** What may look different after a garment changed: of this garment, and of everything. */
const OF_GARMENT = ['project', 'lay', 'buy', 'true', 'log', 'shrink', 'match', 'cut'];
const OF_ALL = ['projects', 'cupboard'];

/** What was just sent is put in place; everything else that a change may touch is fetched again. */
export async function keepAnswers(client: QueryClient, project: Project, ...also: [QueryKey, unknown][]) {
  const sent: [QueryKey, unknown][] = [[keys.project(project.id, seenThrough(project)), project], ...also];
  // what was asked before the change must not come in after it
  await Promise.all(sent.map(([queryKey]) => client.cancelQueries({ queryKey, exact: true })));
  for (const [key, data] of sent) client.setQueryData(key, data);
  const there = new Set(sent.map(([key]) => hashKey(key)));
  void client.invalidateQueries({
    predicate: ({ queryKey: [what, of], queryHash }) =>
      !there.has(queryHash) &&
      (OF_ALL.includes(what as string) ||
        // the whole day; of the brief one only timers are shown, and they hang on no garment
        (what === 'washday' && of === false) ||
        (of === project.id && OF_GARMENT.includes(what as string))),
  });
  return project;
}

/** Calls that change a project and answer with it whole. */
export function useChanges() {
  const client = useQueryClient();
  const asked = useAsked();
  const { id, key } = asked;
  const path = { params: asked.params };
  const { query } = asked.params;
  const keep = (project: Project) => keepAnswers(client, project);
  const keepSwatch = ({ project, shrink }: { project: Project; shrink: unknown }) =>
    keepAnswers(client, project, [keys.shrink(id, key), shrink]);
  return {
    id,
    key,
    path,
    query,
    keep,
    project: async (body: ProjectChange) =>
      keep(await saved(api.PATCH('/api/projects/{project_id}', { ...path, body }))),
    purchase: async (body: PurchaseChange) =>
      keep(await saved(api.PATCH('/api/projects/{project_id}/purchase', { ...path, body }))),
    lay: async (body: LayWishes) => keep(await saved(api.PATCH('/api/projects/{project_id}/lay', { ...path, body }))),
    /** of how it is cut, that from the cloth `of` is meant, or from the main one */
    piece: async (piece_id: number, body: PieceChange, of?: number) =>
      keep(
        await saved(
          api.PATCH('/api/pieces/{piece_id}', { params: { path: { piece_id }, query: { use: of ?? null } }, body }),
        ),
      ),
    cut: async (piece_id: number, use_id: number, body: CutChange) =>
      keep(
        await saved(
          api.PUT('/api/pieces/{piece_id}/cuts/{use_id}', { params: { path: { piece_id, use_id }, query }, body }),
        ),
      ),
    notCut: async (piece_id: number, use_id: number) =>
      keep(
        await saved(
          api.DELETE('/api/pieces/{piece_id}/cuts/{use_id}', { params: { path: { piece_id, use_id }, query } }),
        ),
      ),
    cloth: async (body: ClothChange) =>
      keep(await saved(api.PATCH('/api/projects/{project_id}/cloth', { ...path, body }))),
    school: async (school: string) =>
      keep(await saved(api.PATCH('/api/projects/{project_id}/treatment', { ...path, body: { school } }))),
    refresh: async () => keep(await saved(api.POST('/api/projects/{project_id}/lay/refresh', path))),
    swatch: async (body: SwatchChange) =>
      keepSwatch(await saved(api.PUT('/api/projects/{project_id}/swatch', { ...path, body }))),
    washSwatch: async () => keepSwatch(await saved(api.POST('/api/projects/{project_id}/swatch/wash', path))),
    addSwatch: async () => keepSwatch(await saved(api.POST('/api/projects/{project_id}/swatches', path))),
    goBySwatch: async (swatch_id: number) =>
      keepSwatch(await saved(api.PUT('/api/projects/{project_id}/swatch/use', { ...path, body: { swatch_id } }))),
    takeCloth: async (cloth_id: number) =>
      keep(await saved(api.PUT('/api/projects/{project_id}/cloth/use', { ...path, body: { cloth_id } }))),
    addUse: async (body: NewUse) =>
      keep(await saved(api.POST('/api/projects/{project_id}/uses', { params: { path: { project_id: id } }, body }))),
    changeUse: async (use_id: number, role: string) =>
      keep(
        await saved(
          api.PATCH('/api/projects/{project_id}/uses/{use_id}', {
            params: { path: { project_id: id, use_id } },
            body: { role },
          }),
        ),
      ),
    removeUse: async (use_id: number) =>
      keep(
        await saved(
          api.DELETE('/api/projects/{project_id}/uses/{use_id}', { params: { path: { project_id: id, use_id } } }),
        ),
      ),
    runs: async (use_id: number, runs: Runs) =>
      keep(
        await saved(
          api.PUT('/api/projects/{project_id}/uses/{use_id}/runs', {
            params: { path: { project_id: id, use_id } },
            body: { runs },
          }),
        ),
      ),
  };
}

/** The swatch and treatment of the cloth the page shows. */
export function useShrink() {
  const { id, key, params } = useAsked();
  return useQuery({
    queryKey: keys.shrink(id, key),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/shrink', { params })),
  });
}

/** Everything that shows a cloth, fetched again after it changed. */
export function useClothNews() {
  const client = useQueryClient();
  return () => {
    for (const kind of ['cloth', 'cupboard', 'project', 'projects', 'shrink', 'washday', 'lay'] as const)
      void client.invalidateQueries(every(kind));
  };
}

/** A search is asked so long after the last key, ms. */
const AFTER_TYPING = 200;

/** What was typed, once no key has followed for a while. */
function useSettled(text: string) {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), text === '' ? 0 : AFTER_TYPING);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}

export function useCupboard(typed = '') {
  const words = useSettled(typed);
  return useQuery({
    queryKey: keys.cupboard(words),
    queryFn: () => unwrap(api.GET('/api/cloths', { params: { query: { words } } })),
    placeholderData: (old) => old,
  });
}

/** Whether a page asks for all of the washing day, or only for its loads, as the timers do. */
const dayQuery = (brief: boolean) => ({
  queryKey: keys.washday(brief),
  queryFn: () => unwrap(api.GET('/api/washday', { params: { query: { brief } } })),
});

/** The washing day; where it is shown whole it is worked out again every half minute, for lateness comes with time. */
export function useWashday(brief = false) {
  return useQuery({ ...dayQuery(brief), refetchInterval: brief ? false : 30_000 });
}

const settingsQuery = { queryKey: keys.settings, queryFn: () => unwrap(api.GET('/api/settings')), staleTime: Infinity };
const projectsQuery = { queryKey: keys.projects, queryFn: () => unwrap(api.GET('/api/projects')) };

export function useProjects() {
  return useQuery(projectsQuery);
}

/** What every first page needs is asked for while the scripts still begin. */
export function askAhead(client: QueryClient, path: string) {
  void client.prefetchQuery(settingsQuery);
  if (path === '/') void client.prefetchQuery(projectsQuery);
  void client.prefetchQuery(dayQuery(true));
}

export function useWashdayChanges() {
  const client = useQueryClient();
  const keep = (day: Washday) => {
    client.setQueryData(keys.washday(false), day);
    client.setQueryData(keys.washday(true), day);
    for (const kind of ['project', 'projects', 'cupboard', 'cloth', 'log'] as const)
      void client.invalidateQueries(every(kind));
  };
  const step = (task_id: number) => ({ params: { path: { task_id } } });
  return {
    plan: async (body: { cloths?: number[] | null; start?: string; taken?: Record<string, string> } = {}) =>
      keep(await saved(api.POST('/api/washday/plan', { body }))),
    house: async (body: { washer_kg?: string; rise?: string; sleep?: string }) =>
      keep(await saved(api.PATCH('/api/washday', { body }))),
    begin: async (id: number) => keep(await saved(api.POST('/api/washday/steps/{task_id}/begin', step(id)))),
    end: async (id: number) => keep(await saved(api.POST('/api/washday/steps/{task_id}/end', step(id)))),
    back: async (id: number) => keep(await saved(api.POST('/api/washday/steps/{task_id}/back', step(id)))),
  };
}
