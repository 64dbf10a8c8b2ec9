import { useAct } from './useAct';
import { Button, Drawer, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, type Project, saved } from '../api/client';
import { useAt, useChanges } from '../api/hooks';
import { Explained } from './Words';
import { stageNames } from '../words/stages';

type Warning = Project['warnings'][number];

function Line({ warning, onGone }: { warning: Warning; onGone: () => void }) {
  const at = useAt();
  const changes = useChanges();
  const [why, setWhy] = useState<string>();
  const { run: set, error } = useAct(async (reason: string) => {
    if (!reason.trim() && !warning.aside) throw new Error('Say why it may be left as it is.');
    changes.keep(
      await saved(
        api.PUT('/api/projects/{project_id}/asides', { ...changes.path, body: { key: warning.key, why: reason } }),
      ),
    );
    setWhy(undefined);
  });
  return (
    <li className={warning.aside ? 'quiet' : warning.level === 'spoil' ? 'spoil' : 'look'}>
      <p>
        <Explained text={warning.text} />
      </p>
      {warning.aside && <p>Set aside: {warning.aside}</p>}
      <p className="commands">
        <Link to={at(warning.stage)} onClick={onGone}>
          Mend it: {stageNames[warning.stage]}
        </Link>
        {warning.aside ? (
          <Button size="small" onClick={() => void set('')}>
            Look at it again
          </Button>
        ) : (
          why === undefined && (
            <Button size="small" onClick={() => setWhy('')}>
              Set aside
            </Button>
          )
        )}
      </p>
      {why !== undefined && (
        <form
          className="commands"
          onSubmit={(e) => {
            e.preventDefault();
            void set(why);
          }}
        >
          <Input
            autoFocus
            aria-label="Why it may be left"
            value={why}
            maxLength={120}
            placeholder="why it may be left as it is"
            onChange={(e) => setWhy(e.target.value)}
          />
          <Button size="small" htmlType="submit">
            Set it aside
          </Button>
          <Button size="small" onClick={() => setWhy(undefined)}>
            Leave it
          </Button>
        </form>
      )}
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
    </li>
  );
}

/** Everything to look at again, each with the place where it is mended; what was set aside, with the reason. */
export function Warnings({ project }: { project: Project }) {
  const [open, setOpen] = useState(false);
  const left = project.warnings.filter((w) => !w.aside);
  const aside = project.warnings.filter((w) => w.aside);
  const first = left.find((w) => w.level === 'spoil') ?? left[0];
  if (project.warnings.length === 0)
    return (
      <div className="tally-entry tally-warnings">
        <span className="tally-label">nothing to look at again</span>
      </div>
    );
  const close = () => setOpen(false);
  return (
    <div className="tally-entry tally-warnings">
      <button type="button" className="look-button" onClick={() => setOpen(true)}>
        <span className="tally-label">
          {left.length === 0 ? 'nothing to look at again' : `look again (${left.length})`}
          {aside.length > 0 && `, ${aside.length} set aside`}
        </span>
        <span role="status" className={first?.level === 'spoil' ? 'spoil' : 'look'}>
          {first ? `${stageNames[first.stage]}: ${first.text}` : 'See what was set aside'}
        </span>
      </button>
      <Drawer
        closeIcon="Close"
        title={left.length === 1 ? 'One thing to look at again' : `${left.length} things to look at again`}
        open={open}
        onClose={close}
        size={520}
        destroyOnHidden
      >
        <ul className="warnings">
          {left.map((w) => (
            <Line key={w.key} warning={w} onGone={close} />
          ))}
        </ul>
        {aside.length > 0 && (
          <>
            <h3>Set aside</h3>
            <ul className="warnings">
              {aside.map((w) => (
                <Line key={w.key} warning={w} onGone={close} />
              ))}
            </ul>
          </>
        )}
      </Drawer>
    </div>
  );
}
