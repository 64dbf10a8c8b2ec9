import { keys } from '../../api/keys';
import { Button } from 'antd';
import { useInfiniteQuery } from '@tanstack/react-query';
import { api, unwrap } from '../../api/client';
import { useProjectId } from '../../api/hooks';
import { useUndoing } from '../../app/Undo';
import { stageNames } from '../../words/stages';

/** Log: every step so far, the newest first, as many as are asked for. */
export function LogStage() {
  const id = useProjectId();
  const log = useInfiniteQuery({
    queryKey: keys.log(id),
    queryFn: ({ pageParam: before }) =>
      unwrap(api.GET('/api/projects/{project_id}/log', { params: { path: { project_id: id }, query: { before } } })),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => last.earlier,
  });
  const undoing = useUndoing();
  const entries = log.data?.pages.flatMap((page) => page.entries) ?? [];
  const total = log.data?.pages[0]?.total ?? 0;
  const days = new Map<string, typeof entries>();
  for (const entry of entries) {
    const day = new Date(entry.at).toLocaleDateString([], {
      weekday: 'long',
      day: 'numeric',
      month: 'long',
      year: 'numeric',
    });
    days.set(day, [...(days.get(day) ?? []), entry]);
  }
  return (
    <main tabIndex={0} className="stage log">
      <h1>
        {log.isPending ? 'Fetching …' : entries.length === 0 ? 'Nothing was written down yet' : `${total} steps so far`}
      </h1>
      {undoing.told && (
        <p role="status" className={undoing.told.wrong ? 'spoil' : 'quiet'}>
          {undoing.told.text}
        </p>
      )}
      {log.isError && <p className="spoil">{log.error.message}</p>}
      {[...days].map(([day, lines]) => (
        <section key={day}>
          <h2>{day}</h2>
          <ol className="log-lines">
            {lines.map((entry) => (
              <li key={entry.id}>
                <time dateTime={entry.at}>
                  {new Date(entry.at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
                </time>
                <b>{stageNames[entry.stage] ?? entry.stage}</b>
                <span className={entry.stands ? undefined : 'quiet'}>
                  {entry.what}
                  {!entry.stands && ' (taken back)'}
                </span>
                {entry.change !== null && entry.stands && (
                  <Button
                    size="small"
                    type="text"
                    aria-label={`Undo: ${entry.what}`}
                    onClick={() => void undoing.run(entry.change!)}
                  >
                    Undo
                  </Button>
                )}
              </li>
            ))}
          </ol>
        </section>
      ))}
      {log.hasNextPage && (
        <p className="commands">
          <Button loading={log.isFetchingNextPage} onClick={() => void log.fetchNextPage()}>
            Earlier steps
          </Button>
          <span className="quiet">{total - entries.length} more</span>
        </p>
      )}
    </main>
  );
}
