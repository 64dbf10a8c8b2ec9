import { Button, Upload } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, type LogTold, saved } from '../../api/client';
import { inBase64 } from '../../app/inBase64';
import { useAct } from '../../app/useAct';
import { useUndoing } from '../../app/Undo';
import { stageNames } from '../../words/stages';

/** When, where, what, and of what. */
export function Told({ entry, whose, day = false }: { entry: LogTold; whose: boolean; day?: boolean }) {
  const about = [entry.project, entry.cloth].filter(Boolean).join(', ');
  return (
    <>
      <time dateTime={entry.at}>
        {day
          ? new Date(entry.at).toLocaleDateString([], { day: 'numeric', month: 'short' })
          : new Date(entry.at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
      </time>
      <b>{stageNames[entry.stage] ?? entry.stage}</b>
      <span className={entry.stands ? undefined : 'quiet'}>
        {entry.what}
        {!entry.stands && ' (taken back)'}
        {whose && about && (
          <small className="quiet">
            {' '}
            {entry.project_id ? <Link to={`/projects/${entry.project_id}/log`}>{about}</Link> : about}
          </small>
        )}
      </span>
    </>
  );
}

/** One line of the log, with its photo and its own undo. */
export function Line({ entry, whose, day = false }: { entry: LogTold; whose: boolean; day?: boolean }) {
  const undoing = useUndoing();
  return (
    <li className={entry.kind === 'note' ? 'own-note' : undefined}>
      <Told entry={entry} whose={whose} day={day} />
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
      {entry.photo && (
        <a href={`/api/log/lines/${entry.id}/photo`} target="_blank" rel="noreferrer" className="log-photo">
          <img src={`/api/log/lines/${entry.id}/photo`} alt={entry.what} loading="lazy" />
        </a>
      )}
      {undoing.told && (
        <span role="status" className={undoing.told.wrong ? 'spoil' : 'quiet'}>
          {undoing.told.text}
        </span>
      )}
    </li>
  );
}

/** A note of one's own, with a photo if there is one. */
export function Noting({ of, onNoted }: { of: { project: number } | { cloth: number }; onNoted: () => void }) {
  const [text, setText] = useState('');
  const [photo, setPhoto] = useState<File>();
  const { run, busy, error } = useAct(
    async () => {
      const picture = photo ? await inBase64(photo) : null;
      await saved(api.POST('/api/log/notes', { body: { text, ...of, photo: picture } }));
      setText('');
      setPhoto(undefined);
      onNoted();
    },
    { once: true },
  );
  return (
    <form
      className="log-note"
      onSubmit={(e) => {
        e.preventDefault();
        void run();
      }}
    >
      <label htmlFor="own-note">A note of your own</label>
      <textarea
        id="own-note"
        className="ant-input"
        rows={1}
        maxLength={2000}
        value={text}
        placeholder="what you want to know next time"
        onChange={(e) => setText(e.target.value)}
      />
      <Upload
        accept="image/jpeg,image/png,image/webp"
        showUploadList={false}
        aria-label="Photo for the note"
        beforeUpload={(file) => {
          setPhoto(file);
          return false;
        }}
      >
        <Button>{photo ? `Photo: ${photo.name.slice(0, 24)}` : 'Add a photo'}</Button>
      </Upload>
      <Button htmlType="submit" type="primary" loading={busy} disabled={!text.trim() && !photo}>
        Write it down
      </Button>
      {error && (
        <span className="spoil" role="alert">
          {error}
        </span>
      )}
    </form>
  );
}
