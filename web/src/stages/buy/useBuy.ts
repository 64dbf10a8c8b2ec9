import { onRing } from '../../api/news';
import { keys } from '../../api/keys';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState, useEffectEvent } from 'react';
import { api, saved, type Trials, unwrap } from '../../api/client';
import { useAsked } from '../../api/hooks';

type Asked = ReturnType<typeof useAsked>;

/** One part of Buy: fetched, kept up to date while lays are tried for it, and put in place of the old after a change. */
export function useBuyPart<T>(part: string, fetch: (params: Asked['params']) => Promise<T>) {
  const client = useQueryClient();
  const { id, key: cloth, params } = useAsked();
  const key = keys.buy(id, cloth, part);
  const found = useQuery({ queryKey: key, queryFn: () => fetch(params) });
  return {
    id,
    params,
    data: found.data,
    error: found.error,
    keep: (data: T) => {
      // what was asked before the change must not come in after it, nor put back what was there before
      void client.cancelQueries({ queryKey: key, exact: true }, { revert: false });
      client.setQueryData(key, data);
      void client.invalidateQueries({ queryKey: keys.log(id) });
      return data;
    },
    again: () => client.invalidateQueries({ queryKey: key }),
  };
}

/**
 * Has the lays of a part tried as soon as some are lacking, and follows them. `onNews` is called each time another
 * one is there. Stopped by hand, they are not begun again by themselves.
 */
export function useTrials(
  what: 'extras' | 'offers' | 'together' | 'cupboard' | 'again',
  trials: Trials | undefined,
  onNews: () => void,
  clothId?: number,
) {
  const { id, key: cloth, params } = useAsked();
  const client = useQueryClient();
  const [stopped, setStopped] = useState(false);
  const begun = useRef('');
  const key = keys.buy(id, cloth, 'trials', what, clothId);
  const followed = useQuery({
    queryKey: key,
    enabled: trials !== undefined && trials.state !== 'idle',
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/trials', {
          params: { ...params, query: { ...params.query, what, cloth_id: clothId ?? null } },
        }),
      ),
    staleTime: 0,
  }).data;
  const following = trials !== undefined && trials.state !== 'idle' && followed?.state !== 'idle';
  const again = useEffectEvent(() => void client.invalidateQueries({ queryKey: key }));
  useEffect(() => (following ? onRing(again) : undefined), [following]);
  const told = trials && trials.state !== 'idle' && followed ? followed : trials;
  async function begin() {
    setStopped(false);
    const next = await unwrap(
      api.POST('/api/projects/{project_id}/trials', { params, body: { what, cloth_id: clothId ?? null } }),
    );
    client.setQueryData(key, next);
    onNews();
  }
  // what was typed since a laying began is laid at once, and not when that one is done
  const free = trials && (trials.state === 'idle' ? !trials.error && !stopped : !trials.under_way);
  const wanting = trials && free && trials.asks ? `${what}:${clothId}:${trials.asks}` : '';
  useEffect(() => {
    if (!wanting || begun.current === wanting) return;
    begun.current = wanting;
    // refused or out of reach: the page says so by what it lacks, and the next change asks again
    begin().catch(() => undefined);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `wanting` stands for all of it
  }, [wanting]);
  const news = told ? `${told.state}:${told.done}` : '';
  const before = useRef(news);
  useEffect(() => {
    if (news && before.current !== news) onNews();
    before.current = news;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what came in counts
  }, [news]);
  return {
    told,
    stopped,
    begin,
    /** something was typed: what it asks for is laid, even if the laying was stopped before */
    wake: () => setStopped(false),
    async stop() {
      setStopped(true);
      if (told?.job_id)
        await saved(api.POST('/api/jobs/{job_id}/cancel', { params: { path: { job_id: told.job_id } } }));
      onNews();
    },
  };
}
