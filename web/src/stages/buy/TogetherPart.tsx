import { Checkbox } from 'antd';
import { api, type Cloth, type Project, saved, type SmallLay as Small, type Together, unwrap } from '../../api/client';
import { Worked } from '../../app/Working';
import { useSize } from '../../draw/useSize';
import { fitting, SmallLay } from '../../lay-table/SmallLay';
import { Trying } from './Trying';
import { useBuyPart, useTrials } from './useBuy';

/** Several garments from one cloth: laid together, and what that saves. */
export function TogetherPart({ project }: { project: Project }) {
  const part = useBuyPart<Together>('together', (params) =>
    unwrap(api.GET('/api/projects/{project_id}/together', { params })),
  );
  const trials = useTrials('together', part.data?.trials, () => void part.again());
  const found = part.data;
  if (part.error) return <p className="spoil">{part.error.message}</p>;
  if (!found) return <p className="quiet">Fetching …</p>;
  const chosen = found.uses.filter((p) => p.chosen && p.use_id !== project.use_id).map((p) => p.use_id);
  async function choose(uses: number[]) {
    // the tick stands at once; the answer says what it means
    part.keep({
      ...found!,
      uses: found!.uses.map((p) => ({ ...p, chosen: p.use_id === project.use_id || uses.includes(p.use_id) })),
    });
    part.keep(await saved(api.PUT('/api/projects/{project_id}/together', { params: part.params, body: { uses } })));
  }
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1>
          {found.together && found.saved ? (
            found.saves ? (
              <>
                Together{' '}
                <Worked figure={found.together} label="together">
                  {found.together.text}
                </Worked>
                : that saves{' '}
                <Worked figure={found.saved} label="saved">
                  {found.saved.text}
                </Worked>
              </>
            ) : (
              <>
                Together{' '}
                <Worked figure={found.together} label="together">
                  {found.together.text}
                </Worked>
                : that saves nothing here
              </>
            )
          ) : (
            `What shares this length of ${project.cloth.name || 'cloth'}?`
          )}
        </h1>
        {found.told && <p className="quiet">{found.told}</p>}
        <Trying trials={trials} what="Laying them together and apart" />
        {found.lay && <Picture lay={found.lay} cloth={project.cloth} />}
        {found.lay && (
          <p className="quiet">
            The lay of all of them, {found.lay.length.text}, {found.lay.fold}, after washing.
          </p>
        )}
      </div>
      <aside className="facts">
        <h2>Cut from one length</h2>
        <ul className="plain-list sharers">
          {found.uses.map((p) => (
            <li key={p.use_id}>
              <Checkbox
                className="tick"
                checked={p.chosen}
                disabled={p.use_id === project.use_id}
                onChange={(e) =>
                  void choose(e.target.checked ? [...chosen, p.use_id] : chosen.filter((n) => n !== p.use_id))
                }
              >
                {p.name}
              </Checkbox>
              {p.same_cloth && p.use_id !== project.use_id && <span className="quiet">plans with the same cloth</span>}
              {p.chosen && p.why_not && <span className="spoil">{p.why_not}</span>}
              {p.alone && (
                <span className="quiet">
                  alone{' '}
                  <Worked figure={p.alone} label={`${p.name} alone`}>
                    {p.alone.text}
                  </Worked>
                </span>
              )}
            </li>
          ))}
        </ul>
        {found.apart && (
          <p>
            Bought apart:{' '}
            <Worked figure={found.apart} label="apart">
              {found.apart.text}
            </Worked>
          </p>
        )}
        {found.saved_money && found.saves && <p>At this cloth’s price that is {found.saved_money.text}.</p>}
        <p className="quiet">
          Each keeps its own grain and its own places to meet on the bars. The larger of the gaps between pieces is
          kept.
        </p>
      </aside>
    </div>
  );
}

/** The lay of all of them, as large as there is room. */
function Picture({ lay, cloth }: { lay: Small; cloth: Cloth }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <SmallLay lay={lay} cloth={cloth} scale={fitting(lay.length.mm, lay.width, width - 4, height - 6)} />
      )}
    </div>
  );
}
