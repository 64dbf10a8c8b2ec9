import { useQuery } from '@tanstack/react-query';
import { api, type Lay, type Shape, unwrap } from '../api/client';
import { useAsked } from '../api/hooks';
import { keys } from '../api/keys';

/** The places at which the bars of one piece agree with those they are to meet; nothing for one that meets none. */
export function useAgreeing(lay: Lay | undefined, shape: Shape | undefined) {
  const { id, key, params } = useAsked();
  return useQuery({
    // where it lies decides where it may go
    queryKey: [...keys.lay(id, key), 'agreeing', lay?.lay_id, shape?.pinned, shape?.origin.join()],
    enabled: lay !== undefined && shape !== undefined,
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/lay/agreeing', {
          params: { path: params.path, query: { ...params.query, lay_id: lay!.lay_id, keys: [shape!.pinned] } },
        }),
      ),
  }).data;
}
