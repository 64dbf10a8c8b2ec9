import { hashKey, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type CutDeed, type Cutting, saved, unwrap } from '../../api/client';
import { useAsked } from '../../api/hooks';
import { keys } from '../../api/keys';

/** What hangs on cutting beside itself. */
const HANGS_ON = ['project', 'projects', 'log', 'cut', 'cupboard'];

/** Cut as it stands, and the calls that change it; each answers with all of it. */
export function useCut() {
  const client = useQueryClient();
  const { id, key, params } = useAsked();
  const mine = keys.cut(id, key);
  const found = useQuery({
    queryKey: mine,
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/cut', { params })),
  });
  const keep = async (told: Cutting) => {
    await client.cancelQueries({ queryKey: mine, exact: true });
    client.setQueryData(mine, told);
    void client.invalidateQueries({
      predicate: ({ queryKey: [what, of], queryHash }) =>
        HANGS_ON.includes(what as string) &&
        (what === 'projects' || what === 'cupboard' || of === id) &&
        queryHash !== hashKey(mine),
    });
  };
  return {
    data: found.data,
    error: found.error,
    tick: async (line: string, ticked: boolean) =>
      keep(await saved(api.PUT('/api/projects/{project_id}/cut/before', { params, body: { key: line, ticked } }))),
    accept: async (line: string, why: string) =>
      keep(await saved(api.PUT('/api/projects/{project_id}/cut/before', { params, body: { key: line, why } }))),
    begin: async () => keep(await saved(api.POST('/api/projects/{project_id}/cut', { params }))),
    deed: async (body: Omit<CutDeed, 'copy_number' | 'why' | 'really'> & Partial<CutDeed>) =>
      keep(
        await saved(
          api.POST('/api/projects/{project_id}/cut/deeds', {
            params,
            body: { copy_number: 0, why: '', really: false, ...body },
            // a piece that was marked as cut stays marked, though the page is left at once
            keepalive: true,
          }),
        ),
      ),
    goTo: async (round: number, of: string) =>
      keep(await unwrap(api.PUT('/api/projects/{project_id}/cut/at', { params, body: { round, key: of } }))),
    order: async (round: number, of: string[]) =>
      keep(await saved(api.PUT('/api/projects/{project_id}/cut/order', { params, body: { round, keys: of } }))),
    take: async (way: string) =>
      keep(await saved(api.POST('/api/projects/{project_id}/cut/again', { params, body: { way } }))),
  };
}

export type CutCalls = ReturnType<typeof useCut>;
export type CutProps = { found: Cutting; calls: CutCalls };
