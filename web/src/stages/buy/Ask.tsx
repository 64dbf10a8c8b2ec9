import { keys } from '../../api/keys';
import { useQueryClient } from '@tanstack/react-query';
import { api, type Project, unwrap } from '../../api/client';
import { useChanges, useChoices } from '../../api/hooks';
import { OutOfDate } from '../../app/OutOfDate';
import { waiting, Waits } from '../../app/Waits';
import { Worked } from '../../app/Working';
import { EntryChoice, EntryLength, EntryText } from '../../fields/Entry';
import { Stack } from './Stack';
import { TrimPart } from './TrimPart';
import { Trying } from './Trying';
import { useBuyPart, useTrials } from './useBuy';

/** Whether the cloth the page shows goes by the metre. */
const isTrim = (project: Project) => project.uses.find((u) => u.id === project.use_id)?.trim ?? false;

/** What to ask for at the counter: the stack, the rules of thumb beside it, and what is wished. */
export function Ask({ project }: { project: Project }) {
  const client = useQueryClient();
  const { purchase } = project;
  const trim = isTrim(project);
  const part = useBuyPart('extras', ({ path, query }) =>
    unwrap(api.GET('/api/projects/{project_id}/trials', { params: { path, query: { ...query, what: 'extras' } } })),
  );
  const trials = useTrials('extras', purchase ? part.data : undefined, () => {
    void part.again();
    void client.invalidateQueries({ queryKey: keys.project(project.id) });
  });
  const stale = project.stages.find((s) => s.name === 'buy' && s.state === 'look-again');
  return (
    <div className="buy-ask">
      <div className="picture-side">
        {purchase ? (
          <>
            {purchase.in_hand_does && project.cloth.length_now ? (
              <>
                <h1 className="good">
                  ✓ Nothing to buy: the {project.cloth.length_now.text} of {project.cloth.name || 'the cloth'} in hand
                  will do
                </h1>
                <p>
                  Bought anew it would be{' '}
                  <Worked figure={purchase.to_buy} label="to buy">
                    {purchase.to_buy.text}
                  </Worked>
                  .
                </p>
              </>
            ) : (
              <h1>
                Ask for{' '}
                <Worked figure={purchase.to_buy} label="to buy">
                  {purchase.to_buy.text}
                </Worked>{' '}
                of {project.cloth.name || 'the cloth'}
              </h1>
            )}
            {purchase.in_hand_short && purchase.in_hand_does === false && (
              <p className="spoil">
                The {project.cloth.length_now?.text} in hand are{' '}
                <Worked figure={purchase.in_hand_short} label="short by">
                  {purchase.in_hand_short.text}
                </Worked>{' '}
                short.
              </p>
            )}
            {stale && <OutOfDate why={stale.why} />}
            <Trying trials={trials} what={`Measuring what ${purchase.unmeasured.join(', ') || 'each rule'} costs`} />
            <Stack purchase={purchase} label={`The purchase, line by line; together ${purchase.to_buy.text}`} />
            <p className={purchase.proved ? 'good' : 'quiet'} hidden={trim}>
              {purchase.proved ? (
                '✓ No shorter lay would change what the shop cuts.'
              ) : (
                <>
                  The least any lay of these pieces could ask for is{' '}
                  <Worked figure={purchase.least} label="the least any lay could ask for">
                    {purchase.least.text}
                  </Worked>
                  .
                </>
              )}
            </p>
          </>
        ) : (
          <>
            <h1>How much to ask for</h1>
            {waiting(project, 'buy') ? (
              <Waits project={project} stage="buy" />
            ) : (
              <p>{project.tally.find((t) => t.key === 'to_buy')?.missing}</p>
            )}
          </>
        )}
        {trim && <TrimPart project={project} />}
      </div>
      <aside className="facts">
        {purchase && !trim && <Thumbs project={project} />}
        <Wishes project={project} />
      </aside>
    </div>
  );
}

function Thumbs({ project }: { project: Project }) {
  const purchase = project.purchase!;
  return (
    <section>
      <h2>Rules of thumb, for this cloth</h2>
      <dl className="thumbs">
        {purchase.thumbs.map((thumb) => (
          <div key={thumb.name}>
            <dt>{thumb.name}</dt>
            <dd>
              <Worked figure={thumb.figure} label={thumb.name}>
                {thumb.figure.text}
              </Worked>
            </dd>
            <dd className={thumb.verdict === 'short' ? 'spoil' : 'quiet'}>{thumb.told}</dd>
          </div>
        ))}
      </dl>
      <p className="quiet">
        Adding the shrinkage instead of dividing is{' '}
        <Worked figure={purchase.adding_short} label="adding instead of dividing">
          {purchase.adding_short.text}
        </Worked>{' '}
        short.
      </p>
      <p>
        {purchase.cost && (
          <>
            It costs{' '}
            <Worked figure={purchase.cost} label="cost">
              {purchase.cost.text}
            </Worked>
            .{' '}
          </>
        )}
        <Worked figure={purchase.spare} label="spare">
          {purchase.spare.text}
        </Worked>{' '}
        are left after cutting.
      </p>
      {purchase.in_hand_short && purchase.in_hand_does && (
        <p className="good">
          The {project.cloth.length_now?.text} in hand{' '}
          <Worked figure={purchase.in_hand_short} label="short by">
            will do
          </Worked>
          .
        </p>
      )}
    </section>
  );
}

function Wishes({ project }: { project: Project }) {
  const { wishes } = project;
  const trim = isTrim(project);
  const changes = useChanges();
  const choices = useChoices();
  const step = choices?.steps.find((s) => Math.abs(Number(s.value) - wishes.shop_step.mm) < 0.01);
  const way = wishes.edge.ways.find((w) => w.key === wishes.way);
  return (
    <section>
      <h2>For this purchase</h2>
      <EntryChoice
        label="The shop cuts in steps of"
        value={step?.value ?? ''}
        options={choices?.steps ?? []}
        placeholder={wishes.shop_step.text}
        onSave={(v) => changes.purchase({ shop_step: Number(v) })}
      />
      {!trim && (
        <EntryChoice
          label="The first edge"
          value={wishes.edge_way}
          options={[
            { value: '', label: `as this cloth wants it: ${wishes.edge.ways[0]?.name ?? ''}` },
            ...wishes.edge.ways.map((w) => ({ value: w.key, label: `${w.name} (${w.loss.text} an end)` })),
          ]}
          onSave={(v) => changes.purchase({ edge_way: v as '' })}
        />
      )}
      {way && !trim && (
        <p className="quiet">
          {way.key === wishes.edge.way ? `Because ${wishes.edge.why}.` : `But ${way.why}.`} It takes about{' '}
          {way.loss.text} an end.
        </p>
      )}
      <div className="two">
        <EntryLength
          label="Both ends, to straighten"
          path="ends"
          value={wishes.ends.text}
          onSave={(ends) => changes.purchase({ ends })}
        />
        <EntryLength
          label="Spare, after washing"
          path="spare"
          value={wishes.spare.text}
          onSave={(spare) => changes.purchase({ spare })}
        />
      </div>
      <Extra project={project} />
    </section>
  );
}

/** More bought on purpose needs its reason: it is asked for first, and both are kept in the log. */
function Extra({ project }: { project: Project }) {
  const { wishes } = project;
  const changes = useChanges();
  return (
    <div className="two">
      <EntryText
        label="Why buy more"
        path="extra_why"
        value={wishes.extra_why}
        placeholder="clearance, unsure of the border"
        onSave={(extra_why) => changes.purchase({ extra_why })}
      />
      <EntryLength
        yardage
        label="Bought on purpose"
        path="bought_extra"
        value={wishes.bought_extra.text}
        onSave={async (bought_extra) => {
          try {
            await changes.purchase({ bought_extra });
          } catch (fault) {
            // the reason is asked for in the field beside this one; here it is said where the eye is
            const refusal = fault as { fields?: { path: string; message: string }[] };
            const why = refusal.fields?.find((f) => f.path === 'extra_why')?.message;
            throw why ? new Error(why) : fault;
          }
        }}
      />
    </div>
  );
}
