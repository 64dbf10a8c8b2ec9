import { keys } from '../api/keys';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { useMatch } from 'react-router';
import { api, saved, unwrap } from '../api/client';
import { upToDate } from '../api/news';
import { Tip } from './Tip';

/** Of which list the page undoes: a garment's, or that of bench and cupboard. */
function useList() {
  const match = useMatch('/projects/:projectId/*');
  return match ? Number(match.params.projectId) : null;
}

/** What can be taken back, what done again, and the calls for it. */
export function useUndoing() {
  const project = useList();
  const query = { params: { query: { project } } };
  const found = useQuery({ queryKey: keys.undo(project), queryFn: () => unwrap(api.GET('/api/undo', query)) });
  const [told, setTold] = useState<{ text: string; wrong?: boolean; list: number | null }>();
  async function run(call: 'back' | 'again' | number) {
    try {
      const answer =
        call === 'back'
          ? await saved(api.POST('/api/undo', query))
          : call === 'again'
            ? await saved(api.POST('/api/redo', query))
            : await saved(
                api.POST('/api/changes/{change_id}/undo', {
                  params: { path: { change_id: call }, query: { project } },
                }),
              );
      setTold({ text: `${call === 'again' ? 'Done again' : 'Taken back'}: ${answer.done?.what ?? ''}`, list: project });
      await upToDate();
    } catch (fault) {
      setTold({ text: (fault as Error).message, wrong: true, list: project });
    }
  }
  return { back: found.data?.back, again: found.data?.again, told: told?.list === project ? told : undefined, run };
}

/** At the head of every page: the last thing done, and the way back from it. Nothing of it ever covers the page. */
export function UndoBar({ undoing }: { undoing: ReturnType<typeof useUndoing> }) {
  const { back, again, told, run } = undoing;
  const last = told?.text ?? '';
  return (
    <div className="undo" role="group" aria-label="Undo">
      <span className={told?.wrong ? 'undo-told spoil' : 'undo-told'} role="status">
        {last}
      </span>
      <Tip title={back ? `Take back: ${back.what} (Ctrl+Z)` : 'Nothing to take back'}>
        <Button size="small" disabled={!back} onClick={() => void run('back')}>
          Undo
        </Button>
      </Tip>
      {again && (
        <Tip title={`Do again: ${again.what} (Ctrl+Shift+Z)`}>
          <Button size="small" onClick={() => void run('again')}>
            Redo
          </Button>
        </Tip>
      )}
    </div>
  );
}
