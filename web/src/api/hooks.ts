import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, type ClothChange, type LayWishes, type Project, type ProjectChange, type PurchaseChange, saved, unwrap } from "./client";

export function useSettings() {
  return useQuery({ queryKey: ["settings"], queryFn: () => unwrap(api.GET("/api/settings")), staleTime: Infinity }).data;
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

/** Calls that change a project and answer with it whole. */
export function useChanges() {
  const client = useQueryClient();
  const id = useProjectId();
  const path = { params: { path: { project_id: id } } };
  const keep = (project: Project) => {
    client.setQueryData(["project", id], project);
    void client.invalidateQueries({ queryKey: ["projects"] });
    void client.invalidateQueries({ queryKey: ["lay", id] });
    void client.invalidateQueries({ queryKey: ["log", id] });
    return project;
  };
  return {
    id,
    keep,
    project: async (body: ProjectChange) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}", { ...path, body }))),
    purchase: async (body: PurchaseChange) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}/purchase", { ...path, body }))),
    lay: async (body: LayWishes) => keep(await saved(api.PATCH("/api/projects/{project_id}/lay", { ...path, body }))),
    cloth: async (body: ClothChange) =>
      keep(await saved(api.PATCH("/api/projects/{project_id}/cloth", { ...path, body }))),
  };
}
