import { useAct } from '../../app/useAct';
import { keys } from '../../api/keys';
import { useQuery } from '@tanstack/react-query';
import { Button, Radio } from 'antd';
import { DoButton } from '../../app/DoButton';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, type Cloth, saved, type Shrink, unwrap } from '../../api/client';
import { useAt, useChanges, useChoices, useClothNews, useTape } from '../../api/hooks';
import { EntryChoice, EntryLength, EntryText } from '../../fields/Entry';
import { Explained } from '../../app/Words';
import { Washes } from '../cloth/Washes';

/** Rub test, and a line for every wash of the length until the rag stays clean. */
function Dye({ cloth, kinds }: { cloth: Cloth; kinds: Shrink['washes_offered'] }) {
  const choices = useChoices();
  const { imperial } = useTape();
  const news = useClothNews();
  const [wash, setWash] = useState({ how: '', wash: '', grade: '', length_after: '', width_after: '' });
  const path = { params: { path: { cloth_id: cloth.id } } };
  const set = (part: Partial<typeof wash>) => {
    setWash({ ...wash, ...part });
    return Promise.resolve();
  };
  const { run: add, error } = useAct(async (stand_in: boolean) => {
    await saved(
      api.POST('/api/cloths/{cloth_id}/washes', {
        ...path,
        body: {
          how: wash.how,
          wash: wash.wash,
          grade: wash.grade ? Number(wash.grade) : null,
          length_after: wash.length_after || null,
          width_after: wash.width_after || null,
          stand_in,
        },
      }),
    );
    setWash({ how: '', wash: '', grade: '', length_after: '', width_after: '' });
    news();
  });
  return (
    <section aria-label="Dye and washes">
      <h2>Dye, and the washes it has had</h2>
      <EntryChoice
        label="Rub test with a wet white rag"
        value={cloth.rub_grade ? String(cloth.rub_grade) : ''}
        placeholder="not tried yet"
        options={choices?.grades ?? []}
        onSave={async (grade) => {
          await saved(api.PATCH('/api/cloths/{cloth_id}', { ...path, body: { rub_grade: Number(grade) } }));
          news();
        }}
      />
      <p className="quiet">{choices?.grade_scale}</p>
      {cloth.dye_note && <p className={cloth.washed_alone ? 'look' : 'good'}>{cloth.dye_note}</p>}
      {cloth.washed_alone && <p>It has the water to itself, since {cloth.washed_alone}.</p>}
      <Washes cloth={cloth} onNews={news} />
      <fieldset>
        <legend>A wash of the length, written down</legend>
        <EntryChoice
          label="Washed as"
          value={wash.wash}
          options={[{ value: '', label: 'something else, said below' }, ...kinds]}
          onSave={(kind) => set({ wash: kind })}
        />
        <EntryText
          label="How"
          path={`wash-how-${cloth.id}`}
          value={wash.how}
          placeholder={imperial ? 'such as warm (104 °F), tumbled' : 'such as 40 °C, tumbled'}
          onSave={(how) => set({ how })}
        />
        <EntryChoice
          label="The rag afterwards"
          value={wash.grade}
          placeholder="not tested"
          options={choices?.grades ?? []}
          onSave={(grade) => set({ grade })}
        />
        <div className="two">
          <EntryLength
            yardage
            label="Length afterwards"
            path={`wash-length-${cloth.id}`}
            value={wash.length_after}
            onSave={(length_after) => set({ length_after })}
          />
          <EntryLength
            label="Width afterwards"
            path={`wash-width-${cloth.id}`}
            value={wash.width_after}
            onSave={(width_after) => set({ width_after })}
          />
        </div>
        <p className="commands">
          <DoButton onDo={() => add(false)}>Write it down</DoButton>
          <DoButton type="text" onDo={() => add(true)}>
            Let the stand-in wash it
          </DoButton>
        </p>
        {error && (
          <p className="spoil" role="alert">
            {error}
          </p>
        )}
      </fieldset>
    </section>
  );
}

/** How to treat one cloth: the steps, the school and its reason, the other schools. */
export function TreatPart({ shrink }: { shrink: Shrink }) {
  const at = useAt();
  const changes = useChanges();
  const { advice } = shrink;
  const cloth = useQuery({
    queryKey: keys.cloth(shrink.cloth_id),
    queryFn: () => unwrap(api.GET('/api/cloths/{cloth_id}', { params: { path: { cloth_id: shrink.cloth_id } } })),
  }).data;
  return (
    <>
      <h1>
        {advice.school.label}: {advice.why}
      </h1>
      <div className="treat-grid">
        <section aria-label="Steps">
          <h2>What to do with {shrink.cloth_name}</h2>
          <ol className="treat-steps">
            {advice.steps.map((s) => (
              <li key={s.text}>
                <Explained text={s.text} />
                {s.materials.length > 0 && <span className="quiet"> At hand: {s.materials.join(', ')}.</span>}
                {s.caution && <strong className="caution">{s.caution}</strong>}
              </li>
            ))}
          </ol>
          {advice.changed.map((c) => (
            <p key={c} className="look">
              <Explained text={c} />
            </p>
          ))}
          {advice.forbids.length > 0 && (
            <>
              <h2>This fibre forbids</h2>
              <ul className="plain-list">
                {advice.forbids.map((f) => (
                  <li key={f}>
                    <Explained text={f} />
                  </li>
                ))}
              </ul>
            </>
          )}
          {advice.usual.map((u) => (
            <p key={u} className="quiet">
              {u}
            </p>
          ))}
          <ul className="cautions">
            {advice.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          {advice.school.value === 'fit' && (
            <p>
              The pieces are enlarged for it: see them under <Link to={at('plan')}>Plan</Link>, then{' '}
              <Link to={at('lay')}>lay again</Link>.
            </p>
          )}
        </section>
        <section aria-label="Schools">
          <h2>Ways to treat it</h2>
          <div role="radiogroup" aria-label="Way to treat the cloth">
            {advice.schools.map((s) => (
              <Radio
                key={s.value}
                className="school"
                name="school"
                checked={s.value === advice.school.value}
                onChange={() => void changes.school(s.value)}
              >
                <b>{s.label}</b>: {s.why}
              </Radio>
            ))}
          </div>
          {advice.chosen ? (
            <Button size="small" onClick={() => void changes.school('')}>
              Back to the default of its care
            </Button>
          ) : (
            <p className="quiet">
              The default, from how the finished thing will be washed. Choose another if you have a reason.
            </p>
          )}
        </section>
        {cloth && <Dye key={cloth.id} cloth={cloth} kinds={shrink.washes_offered} />}
      </div>
    </>
  );
}
