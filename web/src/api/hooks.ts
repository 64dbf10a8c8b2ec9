import { hashKey, type QueryClient, type QueryKey, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import {
  api, type ClothChange, type LayWishes, type PieceChange, type Project, type ProjectChange, type PurchaseChange, saved, type SwatchChange, unwrap, type Washday,
} from "./client";

export function useSettings() {
  return useQuery(settingsQuery).data;
}

export function useChoices() {
  return useQuery({ queryKey: ["choices"], queryFn: () => unwrap(api.GET("/api/choices")), staleTime: Infinity }).data;
}

/** Millimetres in one unit of the tape, and its name. */
export function useTape(): { mm: number; unit: string; imperial: boolean } {
  const imperial = useSettings()?.system === "imperial";
  return imperial ? { mm: 25.4, unit: "in", imperial } : { mm: 10, unit: "cm", imperial: false };
}

export function useProjectId(): number {
  return Number(useParams()["projectId"]);
}

export function useProject() {
  const id = useProjectId();
  return useQuery({
    queryKey: ["project", id],
    queryFn: () => unwrap(api.GET("/api/projects/{project_id}", { params: { path: { project_id: id } } })),
  });
}

/** What may look different after a garment changed: of this garment, and of everything. */
const OF_GARMENT = ["lay", "buy", "true", "log", "shrink"];
const OF_ALL = ["projects", "cupboard", "washday"];

/** What was just sent is put in place; everything else that a change may touch is fetched again. */
export function keepAnswers(client: QueryClient, project: Project, ...also: [QueryKey, unknown][]) {
  const sent: [QueryKey, unknown][] = [[["project", project.id], project], ...also];
  for (const [key, data] of sent) client.setQueryData(key, data);
  const there = new Set(sent.map(([key]) => hashKey(key)));
  void client.invalidateQueries({
    predicate: ({ queryKey: [what, of], queryHash }) =>
      !there.has(queryHash) && (OF_ALL.includes(what as string) || (of === project.id && OF_GARMENT.includes(what as string))),
  });
  return project;
}

/** Calls that change a project and answer with it whole. */
export function useChanges() {
  const client = useQueryClient();
  const id = useProjectId();
  const path = { params: { path: { project_id: id } } };
  const keep = (project: Project) => keepAnswers(client, project);
  const keepSwatch = ({ project, shrink }: { project: Project; shrink: { cloth_id: number } }) =>
    keepAnswers(client, project, [["shrink", id, shrink.cloth_id], shrink]);
  return {
    id,
    keep,
    project: async (body: ProjectChange) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}", { ...path, body }))),
    purchase: async (body: PurchaseChange) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}/purchase", { ...path, body }))),
    lay: async (body: LayWishes) => keep(await saved(api.PATCH("/api/projects/{project_id}/lay", { ...path, body }))),
    piece: async (piece_id: number, body: PieceChange) =>
      keep(await saved(api.PATCH("/api/pieces/{piece_id}", { params: { path: { piece_id } }, body }))),
    cloth: async (body: ClothChange) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}/cloth", { ...path, body }))),
    school: async (school: string) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}/treatment", { ...path, body: { school } }))),
    refresh: async () => keep(await saved(api.POST("/api/projects/{project_id}/lay/refresh", path))),
    swatch: async (body: SwatchChange) => keepSwatch(await saved(api.PUT("/api/projects/{project_id}/swatch", { ...path, body }))),
    washSwatch: async (cloth_id: number) =>
      keepSwatch(await saved(api.POST("/api/projects/{project_id}/swatch/wash", { ...path, body: { cloth_id } }))),
    addSwatch: async (cloth_id: number) =>
      keepSwatch(await saved(api.POST("/api/projects/{project_id}/swatches", { ...path, body: { cloth_id } }))),
    useSwatch: async (swatch_id: number) =>
      keepSwatch(await saved(api.PUT("/api/projects/{project_id}/swatch/use", { ...path, body: { swatch_id } }))),
    useCloth: async (cloth_id: number) =>
      keep(await saved(api.PUT("/api/projects/{project_id}/cloth/use", { ...path, body: { cloth_id } }))),
    beside: async (body: { cloth_id?: number; name?: string; role: string }) =>
      keep(await saved(api.POST("/api/projects/{project_id}/set", { ...path, body: { name: "", ...body } }))),
    notBeside: async (cloth_id: number) =>
      keep(await saved(api.DELETE("/api/projects/{project_id}/set/{cloth_id}", { params: { path: { project_id: id, cloth_id } } }))),
  };
}

/** One cloth's swatch and treatment; the project's main cloth when none is named. */
export function useShrink(clothId: number) {
  const id = useProjectId();
  return useQuery({
    queryKey: ["shrink", id, clothId],
    queryFn: () =>
      unwrap(api.GET("/api/projects/{project_id}/shrink", { params: { path: { project_id: id }, query: { cloth_id: clothId } } })),
  });
}

/** Everything that shows a cloth, fetched again after it changed. */
export function useClothNews() {
  const client = useQueryClient();
  return () => {
    for (const key of ["cloth", "cupboard", "project", "projects", "shrink", "washday", "lay"])
      void client.invalidateQueries({ queryKey: [key] });
  };
}

export function useCupboard(words = "") {
  return useQuery({
    queryKey: ["cupboard", words],
    queryFn: () => unwrap(api.GET("/api/cloths", { params: { query: { words } } })),
    placeholderData: (old) => old,
  });
}

/** Whether a page asks for all of the washing day, or only for its loads, as the timers do. */
const dayQuery = (brief: boolean) => ({
  queryKey: ["washday", brief],
  queryFn: () => unwrap(api.GET("/api/washday", { params: { query: { brief } } })),
});

/** The washing day; looked at again every half minute, so that lateness and timers show by themselves. */
export function useWashday(brief = false) {
  return useQuery({ ...dayQuery(brief), refetchInterval: 30_000 });
}

const settingsQuery = { queryKey: ["settings"], queryFn: () => unwrap(api.GET("/api/settings")), staleTime: Infinity };
const projectsQuery = { queryKey: ["projects"], queryFn: () => unwrap(api.GET("/api/projects")) };

export function useProjects() {
  return useQuery(projectsQuery);
}

/** What every first page needs is asked for while the scripts still begin. */
export function askAhead(client: QueryClient, path: string) {
  void client.prefetchQuery(settingsQuery);
  if (path === "/") void client.prefetchQuery(projectsQuery);
  void client.prefetchQuery(dayQuery(true));
}

export function useWashdayChanges() {
  const client = useQueryClient();
  const keep = (day: Washday) => {
    client.setQueryData(["washday", false], day);
    client.setQueryData(["washday", true], day);
    for (const key of ["project", "projects", "cupboard", "cloth", "log"]) void client.invalidateQueries({ queryKey: [key] });
  };
  const step = (task_id: number) => ({ params: { path: { task_id } } });
  return {
    plan: async () => keep(await saved(api.POST("/api/washday/plan"))),
    house: async (body: { washer_kg?: string; rise?: string; sleep?: string }) => keep(await saved(api.PATCH("/api/washday", { body }))),
    begin: async (id: number) => keep(await saved(api.POST("/api/washday/steps/{task_id}/begin", step(id)))),
    end: async (id: number) => keep(await saved(api.POST("/api/washday/steps/{task_id}/end", step(id)))),
    back: async (id: number) => keep(await saved(api.POST("/api/washday/steps/{task_id}/back", step(id)))),
  };
}
