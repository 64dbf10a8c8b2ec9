import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useDeferredValue, useState } from 'react';
import { api, type LogTold, unwrap } from '../../api/client';
import { useProject, useProjectId } from '../../api/hooks';
import { every, keys } from '../../api/keys';
import { Choice } from '../../fields/Choice';
import { stageNames } from '../../words/stages';
import { Line, Noting, Told } from './lines';

const AHEAD = -new Date().getTimezoneOffset();
const ALL = 'all';
type Wanted = { of: string; stage: string; since: string; until: string; text: string };
const ANYTHING: Wanted = { of: 'garment', stage: ALL, since: '', until: '', text: '' };

/** Every step so far, the newest first: of this garment, of one of its cloths, or of everything. */
export function StepsPart() {
  const id = useProjectId();
  const project = useProject().data;
  const client = useQueryClient();
  const [wanted, setWanted] = useState<Wanted>(ANYTHING);
  const text = useDeferredValue(wanted.text.trim());
  const asked = {
    ...(wanted.of === 'garment' ? { project: id } : wanted.of === ALL ? {} : { cloth: Number(wanted.of) }),
    ...(wanted.stage === ALL ? {} : { stage: wanted.stage }),
    ...(wanted.since ? { since: wanted.since } : {}),
    ...(wanted.until ? { until: wanted.until } : {}),
    ...(text ? { text } : {}),
    minutes: AHEAD,
  };
  const log = useInfiniteQuery({
    queryKey: [...keys.log(id), asked],
    queryFn: ({ pageParam: before }) =>
      unwrap(api.GET('/api/log/lines', { params: { query: { ...asked, ...(before ? { before } : {}) } } })),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => last.earlier,
    placeholderData: (old) => old,
  });
  const groups = log.data?.pages.flatMap((page) => page.groups) ?? [];
  const days = new Map<string, LogTold[][]>();
  for (const group of groups) {
    const day = new Date(group[0]!.at).toLocaleDateString([], {
      weekday: 'long',
      day: 'numeric',
      month: 'long',
      year: 'numeric',
    });
    days.set(day, [...(days.get(day) ?? []), group]);
  }
  const lines = groups.reduce((sum, group) => sum + group.length, 0);
  const want = (more: Partial<Wanted>) => setWanted((old) => ({ ...old, ...more }));
  const cloths = new Map(project?.uses.map((use) => [use.cloth_id, use.name || 'a cloth without a name']));
  const file = new URLSearchParams(Object.entries(asked).map(([key, value]) => [key, String(value)]));
  const narrowed = wanted.stage !== ALL || wanted.since || wanted.until || text;
  return (
    <div className="log">
      <h1>
        {log.isPending
          ? 'Fetching …'
          : lines === 0
            ? narrowed
              ? 'No line is like that'
              : 'Nothing was written down yet'
            : `${lines}${log.hasNextPage ? ' and more' : ''} ${lines === 1 ? 'step' : 'steps'}${narrowed ? ' like that' : ' so far'}`}
      </h1>
      <div className="log-filters" role="search" aria-label="Which lines">
        <label>
          of{' '}
          <Choice
            id="log-of"
            value={wanted.of}
            options={[
              { value: 'garment', label: 'this garment' },
              ...[...cloths].map(([number, name]) => ({ value: String(number), label: `the cloth: ${name}` })),
              { value: ALL, label: 'everything' },
            ]}
            placeholder="choose"
            wrong={false}
            onChoose={(of) => want({ of })}
          />
        </label>
        <label>
          in{' '}
          <Choice
            id="log-stage"
            value={wanted.stage}
            options={[
              { value: ALL, label: 'every stage' },
              ...Object.entries(stageNames).map(([value, label]) => ({ value, label })),
            ]}
            placeholder="choose"
            wrong={false}
            onChoose={(stage) => want({ stage })}
          />
        </label>
        <label>
          from{' '}
          <input
            type="date"
            className="ant-input"
            value={wanted.since}
            onChange={(e) => want({ since: e.target.value })}
          />
        </label>
        <label>
          to{' '}
          <input
            type="date"
            className="ant-input"
            value={wanted.until}
            onChange={(e) => want({ until: e.target.value })}
          />
        </label>
        <Input
          aria-label="With the words"
          placeholder="with the words …"
          value={wanted.text}
          maxLength={200}
          onChange={(e) => want({ text: e.target.value })}
        />
        {wanted !== ANYTHING && <Button onClick={() => setWanted(ANYTHING)}>All of it again</Button>}
      </div>
      <Noting of={{ project: id }} onNoted={() => void client.invalidateQueries(every('log'))} />
      <p className="log-files">
        <a href={`/api/log.csv?${file}`} download>
          These lines as a table (CSV)
        </a>
        {', '}
        <Button type="link" size="small" onClick={() => window.print()}>
          print them
        </Button>
        {', '}
        <a href={`/api/projects/${id}/archive.zip`} download>
          this garment with its cloths as one file
        </a>
      </p>
      {log.isError && <p className="spoil">{log.error.message}</p>}
      {[...days].map(([day, of]) => (
        <section key={day}>
          <h2>{day}</h2>
          <ol className="log-lines">
            {of.map((group) =>
              group.length === 1 ? (
                <Line key={group[0]!.id} entry={group[0]!} whose={wanted.of !== 'garment'} />
              ) : (
                <li key={group[0]!.id} className="log-group">
                  <details>
                    <summary>
                      <Told entry={group[0]!} whose={wanted.of !== 'garment'} />
                      <span className="quiet">and {group.length - 1} more of that kind just before</span>
                    </summary>
                    <ol className="log-lines">
                      {group.map((entry) => (
                        <Line key={entry.id} entry={entry} whose={false} />
                      ))}
                    </ol>
                  </details>
                </li>
              ),
            )}
          </ol>
        </section>
      ))}
      {log.hasNextPage && (
        <p className="commands">
          <Button loading={log.isFetchingNextPage} onClick={() => void log.fetchNextPage()}>
            Earlier steps
          </Button>
        </p>
      )}
    </div>
  );
}
