import { Button } from 'antd';
import { useSearchParams } from 'react-router';
import { api, type Cloth, type Project, unwrap, type WillItDo } from '../../api/client';
import { useChanges, useCupboard } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { fitting, SmallLay } from '../../lay-table/SmallLay';
import { Trying } from './Trying';
import { useBuyPart, useTrials } from './useBuy';

const SAID: Record<WillItDo['helps'][number]['state'], string> = {
  does: '✓',
  short: '–',
  worse: '–',
  waiting: '…',
};

/** Will this piece do? A cloth of the cupboard tried after shrinking, and what would help. */
export function WillItDoPart({ project }: { project: Project }) {
  const [search, setSearch] = useSearchParams();
  const asked = Number(search.get('cloth')) || undefined;
  const cupboard = useCupboard();
  const part = useBuyPart<WillItDo>(`cupboard-${asked ?? ''}`, ({ path, query }) =>
    unwrap(
      api.GET('/api/projects/{project_id}/will-it-do', {
        params: { path, query: { ...query, cloth_id: asked ?? null } },
      }),
    ),
  );
  const trials = useTrials('cupboard', asked ? part.data?.trials : undefined, () => void part.again(), asked);
  const found = part.data;
  // what is there to be tried comes first
  const lines = (cupboard.data?.cloths ?? []).toSorted(
    (a, b) => Number(!a.cloth.length_now) - Number(!b.cloth.length_now),
  );
  const cloth = lines.find((l) => l.cloth.id === asked)?.cloth;
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1 className={found?.does === false ? 'spoil' : undefined}>
          {found?.headline ?? 'Will a piece from the cupboard do?'}
        </h1>
        {!asked && (
          <p>
            Choose a cloth or a remnant: the pieces are laid on what is left of it after shrinking and straightening.
          </p>
        )}
        {part.error && <p className="spoil">{part.error.message}</p>}
        {found?.warnings.map((w) => (
          <p key={w} className="look">
            {w}
          </p>
        ))}
        <Trying trials={trials} what="Trying" />
        {found && cloth && <There found={found} cloth={cloth} />}
        {found && found.does === true && cloth && <Take project={project} cloth={cloth} />}
        {found && found.helps.length > 0 && (
          <>
            <h2>What would help</h2>
            <ul className="helps">
              {found.helps.map((help) => (
                <li key={help.name} data-state={help.state}>
                  <span className={help.state === 'does' ? 'good' : 'quiet'} aria-hidden="true">
                    {SAID[help.state]}
                  </span>
                  <span>
                    <b>{help.name}</b>
                    <span className={help.state === 'does' ? 'good' : 'quiet'}>{help.told}</span>
                    <small>It costs: {help.costs}.</small>
                  </span>
                  {help.lay && cloth && (
                    <SmallLay
                      lay={help.lay}
                      cloth={cloth}
                      scale={fitting(help.lay.length.mm, help.lay.width, 190, 90)}
                    />
                  )}
                </li>
              ))}
            </ul>
          </>
        )}
        {found?.hints.map((h) => (
          <p key={h} className="quiet">
            {h}
          </p>
        ))}
      </div>
      <aside className="facts">
        <h2>Choose from the cupboard</h2>
        {lines.length === 0 && (
          <p className="quiet">{cupboard.data ? 'Nothing is in the cupboard yet.' : 'Fetching …'}</p>
        )}
        <ul className="plain-list chooser">
          {lines.map((line) => (
            <li key={line.cloth.id}>
              {/* oxlint-disable-next-line jsx-a11y/control-has-associated-label -- its text is the cloth's name */}
              <button
                type="button"
                aria-pressed={line.cloth.id === asked}
                onClick={() =>
                  setSearch(
                    (old) => {
                      old.set('cloth', String(line.cloth.id));
                      return old;
                    },
                    { replace: true },
                  )
                }
              >
                <i style={{ background: line.cloth.ground }} />
                <span>
                  <b>{line.cloth.name || 'a cloth without a name'}</b>
                  <small>{line.left}</small>
                </span>
              </button>
            </li>
          ))}
        </ul>
      </aside>
    </div>
  );
}

/** The length that is there, and the lay on it at the same scale. */
function There({ found, cloth }: { found: WillItDo; cloth: Cloth }) {
  if (!found.there) return null;
  const longest = Math.max(found.there.value, found.needs?.value ?? 0);
  const wide = found.lay?.width ?? 1400;
  const scale = fitting(longest, wide, 740, found.does ? 430 : 240);
  return (
    <div className="there">
      <div
        className="there-cloth"
        style={{ width: found.there.value * scale, height: wide * scale, background: cloth.ground }}
      >
        {found.lay && <SmallLay lay={found.lay} cloth={cloth} scale={scale} />}
      </div>
      <p>
        There to lay on:{' '}
        <Worked figure={found.there} label="there to lay on">
          {found.there.text}
        </Worked>
        {found.needs && (
          <>
            , the lay takes{' '}
            <Worked figure={found.needs} label="what the lay takes">
              {found.needs.text}
            </Worked>
          </>
        )}
        {found.over && found.over.value >= 0 && (
          <span className="good">
            ,{' '}
            <Worked figure={found.over} label="left over">
              {found.over.text}
            </Worked>{' '}
            left
          </span>
        )}
      </p>
    </div>
  );
}

function Take({ project, cloth }: { project: Project; cloth: Cloth }) {
  const changes = useChanges();
  if (cloth.id === project.cloth.id) return <p className="good">✓ It is this project’s cloth already.</p>;
  return (
    <p className="commands">
      <Button type="primary" onClick={() => void changes.takeCloth(cloth.id)}>
        Make this the project’s cloth
      </Button>
    </p>
  );
}
