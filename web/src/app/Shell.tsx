import { Button, Drawer } from 'antd';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { NavLink, Outlet, useLocation, useMatch } from 'react-router';
import { saving } from '../api/client';
import { useChanges, useProject } from '../api/hooks';
import { DraftScope, EntryText } from '../fields/Entry';
import { COMMAND, useRefusals } from '../fields/refusals';
import { ClothSwitch } from './ClothSwitch';
import { onPage } from './hand';
import { Keys, Skip } from './Keys';
import { UndoBar, useUndoing } from './Undo';
import { Rail } from './Rail';
import { TallyBar } from './TallyBar';
import { Timers } from '../devices/Timers';
import { Words } from './Words';
import { Units, Yours } from './Yours';
import { useTapeDevice } from '../devices/useTape';
import { Tip } from './Tip';

/** Whether what was done is kept; not while a refused value stands in a field. */
function Saved() {
  const refused = useRefusals().length > 0;
  const now = useSyncExternalStore(saving.subscribe, saving.get);
  const text = {
    idle: '',
    saving: 'saving …',
    saved: `saved ${now.at?.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' }) ?? ''}`,
    failed: 'not saved',
  }[now.state];
  const wrong = refused || now.state === 'failed';
  return (
    <span className={wrong ? 'saved spoil' : 'saved'} role="status" data-state={refused ? 'failed' : now.state}>
      {wrong ? 'not saved' : text}
    </span>
  );
}

/** What was refused stays here, with its name, until it is mended or dropped. */
function RefusedStrip() {
  const refused = useRefusals();
  if (refused.length === 0) return null;
  return (
    <ul className="refused" aria-label="Not saved">
      {refused.map((one) => (
        <li key={one.id}>
          Not saved: {one.id === COMMAND ? one.message : <b>{one.label}</b>}{' '}
          <Button size="small" onClick={one.go}>
            {one.id === COMMAND ? 'Put aside' : 'Go there'}
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Says when a digital tape's next reading will be taken. */
function TapeWord() {
  const listening = useTapeDevice();
  return <span className="tape-word">{listening ? 'tape: ready' : ''}</span>;
}

function ProjectHeader() {
  const project = useProject();
  const change = useChanges();
  if (!project.data) return <div className="titles" />;
  const { name, note } = project.data;
  return (
    <div className="titles">
      <EntryText
        label="Project name"
        bare
        className="title-name"
        path="name"
        value={name}
        onSave={(v) => change.project({ name: v })}
      />
      <EntryText
        label="Note"
        bare
        className="title-note"
        path="note"
        value={note}
        placeholder="for whom, for when"
        onSave={(v) => change.project({ note: v })}
      />
    </div>
  );
}

/** The frame: rail, header, the stage, the tally. */
export function Shell() {
  const match = useMatch('/projects/:projectId/*');
  useFocusOnStage();
  return (
    <>
      <Skip />
      <Timers />
      {match ? <ProjectFrame /> : <Frame />}
    </>
  );
}

/** On a page that was gone to, the hand is on it, not on the link that led there. */
function useFocusOnStage() {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    if (before.current === pathname) return undefined;
    before.current = pathname;
    // its part of the program may still be on the way
    const timer = setInterval(() => {
      const main = document.querySelector<HTMLElement>('main');
      if (!main) return;
      clearInterval(timer);
      if (!main.contains(document.activeElement)) onPage();
    }, 30);
    return () => clearInterval(timer);
  }, [pathname]);
}

/** What stands at the right of every head: undo, keys, units, whether it is saved. */
function HeadTools() {
  const undoing = useUndoing();
  const [sheet, setSheet] = useState(false);
  const [yours, setYours] = useState(false);
  const [words, setWords] = useState(false);
  return (
    <>
      <Saved />
      <UndoBar undoing={undoing} />
      <Keys
        open={sheet}
        onOpen={setSheet}
        onBack={() => void undoing.run('back')}
        onAgain={() => void undoing.run('again')}
      />
      <Tip title="All keys (?)">
        <Button className="keys-button" size="small" type="text" onClick={() => setSheet(true)}>
          Keys
        </Button>
      </Tip>
      <Tip title="Words of the trade">
        <Button size="small" type="text" onClick={() => setWords(true)}>
          Words
        </Button>
      </Tip>
      <Words open={words} onClose={() => setWords(false)} />
      <Tip title="Units, tape, the shop’s step, money">
        <Button size="small" type="text" onClick={() => setYours(true)}>
          Yours
        </Button>
      </Tip>
      <Drawer
        closeIcon="Close"
        title="How you measure and buy"
        open={yours}
        onClose={() => setYours(false)}
        size={380}
        destroyOnHidden
      >
        <Yours />
      </Drawer>
      <TapeWord />
      <Units />
    </>
  );
}

function Frame() {
  return (
    <div className="frame">
      <Rail stages={undefined} projectId={undefined} />
      <header className="top">
        <div className="titles">
          <nav className="places" aria-label="Places">
            <NavLink to="/" end>
              Bench
            </NavLink>
            <NavLink to="/cupboard">Cupboard</NavLink>
            <NavLink to="/washday">Washing day</NavLink>
          </nav>
        </div>
        <HeadTools />
      </header>
      <div className="under-head">
        <RefusedStrip />
      </div>
      <Outlet />
    </div>
  );
}

function ProjectFrame() {
  const project = useProject();
  return (
    <div className="frame">
      <Rail stages={project.data?.stages} projectId={project.data?.id} />
      <header className="top">
        <ProjectHeader />
        <HeadTools />
      </header>
      <div className="under-head">
        <RefusedStrip />
        {project.data && <ClothSwitch project={project.data} />}
      </div>
      {project.isError ? (
        <main className="stage">
          <h1>This project cannot be opened</h1>
          <p>{project.error.message}</p>
        </main>
      ) : project.data && !project.isPlaceholderData ? (
        // what is typed and shown is one cloth's: another cloth's page begins anew
        <DraftScope key={project.data.use_id} value={`use-${project.data.use_id}`}>
          <Outlet />
        </DraftScope>
      ) : (
        <main className="stage">
          <p className="quiet">Fetching …</p>
        </main>
      )}
      {project.data && <TallyBar project={project.data} />}
    </div>
  );
}
