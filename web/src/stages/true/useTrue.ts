import { keys } from '../../api/keys';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type Project, saved, type TrueChange, unwrap } from '../../api/client';
import { keepAnswers, useAsked } from '../../api/hooks';

/** Everything of True, and the calls that change it; each answers with the project and with True whole. */
export function useTrue() {
  const client = useQueryClient();
  const { id, key, params } = useAsked();
  const { path, query } = params;
  const found = useQuery({
    queryKey: keys.true(id, key),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/true', { params })),
  });
  type Kept = { project: Project; true: NonNullable<typeof found.data> };
  const keep = async (told: Kept) => {
    await keepAnswers(client, told.project, [keys.true(id, key), told.true]);
  };
  return {
    data: found.data,
    error: found.error,
    change: async (body: TrueChange) =>
      keep(await saved(api.PATCH('/api/projects/{project_id}/true', { params, body }))),
    writeDown: async () => keep(await saved(api.POST('/api/projects/{project_id}/true/tests', { params }))),
    strike: async (test_id: number) =>
      keep(
        await saved(
          api.DELETE('/api/projects/{project_id}/true/tests/{test_id}', {
            params: { path: { ...path, test_id }, query },
          }),
        ),
      ),
  };
}

export type TrueCalls = ReturnType<typeof useTrue>;
/** What every part is given. */
export type PartProps = { found: NonNullable<TrueCalls['data']>; calls: TrueCalls; project: Project };
