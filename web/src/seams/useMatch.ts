import { hashKey, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type Match, saved, type SeamChange, unwrap } from '../api/client';
import { useAsked } from '../api/hooks';
import { keys } from '../api/keys';
import type { components } from '../api/schema';

type Told = components['schemas']['SeamIn'];
type Wish = components['schemas']['BarWishIn'];

/** What hangs on the seams beside themselves: the lay that would be asked for, and what is bought for it. */
const HANGS_ON = ['project', 'lay', 'buy', 'log', 'match', 'cut'];

/** The seams of the garment on the cloth the page shows, and the calls that change them; each answers with all of it. */
export function useMatch() {
  const client = useQueryClient();
  const { id, key, params } = useAsked();
  const { query } = params;
  const mine = keys.match(id, key);
  const found = useQuery({
    queryKey: mine,
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/match', { params })),
  });
  const keep = async (told: Match) => {
    await client.cancelQueries({ queryKey: mine, exact: true });
    client.setQueryData(mine, told);
    void client.invalidateQueries({
      predicate: ({ queryKey: [what, of], queryHash }) =>
        of === id && HANGS_ON.includes(what as string) && queryHash !== hashKey(mine),
    });
  };
  const seam = (seam_id: number) => ({ params: { path: { seam_id }, query } });
  return {
    data: found.data,
    error: found.error,
    add: async (body: Told) => keep(await saved(api.POST('/api/projects/{project_id}/seams', { params, body }))),
    change: async (seam_id: number, body: SeamChange) =>
      keep(await saved(api.PATCH('/api/seams/{seam_id}', { ...seam(seam_id), body }))),
    takeOut: async (seam_id: number) => keep(await saved(api.DELETE('/api/seams/{seam_id}', seam(seam_id)))),
    order: async (seams: number[]) =>
      keep(await saved(api.PUT('/api/projects/{project_id}/seams/order', { params, body: { seams } }))),
    take: async (which: number[]) =>
      keep(await saved(api.POST('/api/projects/{project_id}/seams/proposed', { params, body: { which } }))),
    corner: async (piece_id: number, of: number, corner: boolean | null) =>
      keep(
        await saved(
          api.PUT('/api/pieces/{piece_id}/corners', {
            params: { path: { piece_id }, query },
            body: { key: of, corner },
          }),
        ),
      ),
    wish: async (body: Wish) => keep(await saved(api.PUT('/api/projects/{project_id}/bars-wished', { params, body }))),
  };
}

export type MatchCalls = ReturnType<typeof useMatch>;
