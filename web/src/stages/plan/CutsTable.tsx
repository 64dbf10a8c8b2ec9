import { useEffect, useRef } from 'react';
import { useAct } from '../../app/useAct';
import { Button } from 'antd';
import { DoButton } from '../../app/DoButton';
import { AskWord } from '../../app/Words';
import type { Cut, Piece, Project, Use } from '../../api/client';
import { useChanges, useChoices } from '../../api/hooks';
import { Patch } from '../../app/ClothSwitch';
import { AddCloth } from '../../cupboard/AddCloth';
import { DraftScope, EntryChoice, EntryLength, EntryText, EntryTick } from '../../fields/Entry';

const SELVAGES = [
  { value: '', label: 'no border' },
  { value: 'low', label: 'near selvage' },
  { value: 'high', label: 'far selvage' },
];

/** One line: how a piece is cut from one cloth. Every entry is kept at once. */
function CutLine({ piece, use, cut }: { piece: Piece; use: Use; cut: Cut }) {
  const changes = useChanges();
  const choices = useChoices();
  const change = (body: Parameters<typeof changes.cut>[2]) => changes.cut(piece.id, use.id, body);
  const named = (what: string) => `${piece.name} from ${use.name}, ${what}`;
  const remove = () => changes.notCut(piece.id, use.id);
  return (
    <DraftScope value={`cut-${piece.id}-${use.id}`}>
      <td className="cut-of">
        <span className="cuts-cloth">
          <Patch use={use} size={28} />
          <span>
            <b>{use.name}</b>
            <small>{cut.how_cut}</small>
          </span>
        </span>
        {cut.fault && <small className="spoil">{cut.fault}</small>}
      </td>
      <td className="cut-number">
        <EntryText
          bare
          label={named('how many')}
          path="copies"
          value={String(cut.copies)}
          onSave={(v) => change({ copies: /^\d+$/.test(v.trim()) ? Number(v) : (v as unknown as number) })}
        />
      </td>
      <td>
        <EntryTick
          bare
          label={named('in pairs, left and right')}
          value={cut.pair}
          onSave={(pair) => change({ pair })}
        />
      </td>
      <td>
        {piece.half && (
          <EntryTick bare label={named('on the fold')} value={cut.on_fold} onSave={(on_fold) => change({ on_fold })} />
        )}
      </td>
      <td>
        <EntryChoice
          bare
          label={named('grain')}
          value={cut.grain}
          options={choices?.grains ?? []}
          onSave={(v) => change({ grain: v as 'any' })}
        />
      </td>
      <td>
        <EntryTick
          bare
          label={named('one way, tops all alike')}
          value={cut.one_way}
          onSave={(one_way) => change({ one_way })}
        />
      </td>
      <td className="cut-length">
        {cut.bare ? (
          <span className="quiet">none</span>
        ) : (
          <EntryLength
            bare
            label={named('seam allowance to add')}
            path="seam"
            value={cut.seam.text}
            onSave={(seam) => change({ seam })}
          />
        )}
      </td>
      <td>
        <EntryTick bare label={named('without any allowance')} value={cut.bare} onSave={(bare) => change({ bare })} />
      </td>
      <td className="cut-length">
        <EntryLength
          bare
          label={named('shorter at its low end by')}
          path="shorter"
          value={cut.shorter.text}
          onSave={(shorter) => change({ shorter })}
        />
      </td>
      <td>
        <EntryTick
          bare
          label={named('does not show when worn')}
          value={cut.hidden}
          onSave={(hidden) => change({ hidden })}
        />
      </td>
      <td className="cut-border">
        {cut.grain === 'crosswise' || cut.grain === 'lengthwise' ? (
          <>
            <EntryChoice
              bare
              label={named(cut.grain === 'crosswise' ? 'its hem lies' : 'its long edge lies')}
              value={cut.border}
              options={SELVAGES}
              onSave={(v) => change({ border: v as '' })}
            />
            {cut.border && (
              <EntryLength
                bare
                label={named('from that selvage')}
                path="border_at"
                value={cut.border_at.text}
                onSave={(border_at) => change({ border_at })}
              />
            )}
          </>
        ) : (
          <span className="quiet">
            <span aria-hidden="true">–</span>
            <span className="unseen">only for a piece on the cross grain, or a strip along the border</span>
          </span>
        )}
      </td>
      <td>
        <Button type="text" aria-label={`Cut ${piece.name} from ${use.name} no longer`} onClick={() => void remove()}>
          take out
        </Button>
      </td>
    </DraftScope>
  );
}

const TAKE_OUT = 'take out';
const HEADS = [
  'piece',
  'cut from',
  'how many',
  'pair',
  'fold',
  'grain',
  'one way',
  'allowance to add',
  'without any',
  'shorter by',
  'hidden',
  'hem on a border',
  TAKE_OUT,
];

/** What is cut from what: a line for each piece and cloth. */
export function CutsTable({ project }: { project: Project }) {
  const changes = useChanges();
  const uses = project.uses.filter((u) => !u.trim);
  const begun = useRef<{ line: string; hand: Element | null }>(undefined);
  const { run: begin, error } = useAct(async (piece: Piece, use: Use) => {
    const hand = document.activeElement;
    await changes.cut(piece.id, use.id, {});
    begun.current = { line: `${piece.id}-${use.id}`, hand };
  });
  // the hand goes on in the line that was begun, as soon as it is there; where it has gone on by itself, it stays
  useEffect(() => {
    const at = begun.current;
    const field = at && document.querySelector<HTMLInputElement>(`tr[data-cut="${at.line}"] input`);
    if (!field) return;
    begun.current = undefined;
    if (document.activeElement === at.hand || document.activeElement === document.body) field.focus();
  });
  return (
    <>
      <h1>
        {uses.length === 1
          ? 'Everything is cut from one cloth'
          : `${uses.length} cloths, ${uses.reduce((n, u) => n + u.copies, 0)} to cut`}
      </h1>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
      <p className="which-cloths">
        {uses.map((u) => (
          <span key={u.id} className="cuts-cloth">
            <Patch use={u} size={28} />
            <span>
              <b>{u.name}</b>
              <small>
                {u.role_label}, {u.copies} to cut
              </small>
            </span>
          </span>
        ))}
      </p>
      <div className="cuts-scroll">
        <table className="cuts">
          <thead>
            <tr>
              {HEADS.map((head) => (
                <th scope="col" key={head}>
                  {head === TAKE_OUT ? (
                    <span className="unseen">{head}</span>
                  ) : (
                    <>
                      {head}
                      <AskWord text={head} />
                    </>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          {project.pieces.map((p) => {
            const cuts = p.cuts.flatMap((cut) => {
              const use = uses.find((u) => u.id === cut.use_id);
              return use ? [{ cut, use }] : [];
            });
            const rest = uses.filter((u) => !p.cuts.some((c) => c.use_id === u.id));
            const head = (
              <th scope="rowgroup" rowSpan={Math.max(1, cuts.length)}>
                {p.name}
                {rest.map((u) => (
                  <DoButton
                    key={u.id}
                    size="small"
                    className="cut-add"
                    aria-label={`Cut ${p.name} from ${u.name}`}
                    onDo={() => begin(p, u)}
                  >
                    + {u.name}
                  </DoButton>
                ))}
              </th>
            );
            return (
              <tbody key={p.id}>
                {cuts.length === 0 && (
                  <tr>
                    {head}
                    <td colSpan={HEADS.length - 1} className="quiet">
                      not cut from any cloth yet
                    </td>
                  </tr>
                )}
                {cuts.map(({ cut, use }, i) => (
                  <tr
                    key={use.id}
                    data-cut={`${p.id}-${use.id}`}
                    aria-label={`${p.name} from ${use.name}: ${cut.how_cut}`}
                  >
                    {i === 0 && head}
                    <CutLine piece={p} use={use} cut={cut} />
                  </tr>
                ))}
              </tbody>
            );
          })}
        </table>
      </div>
      {project.pieces.length === 0 && (
        <p className="quiet">Add the pieces first; a new one is cut from the main cloth.</p>
      )}
      <AddCloth />
      <p className="quiet">
        A piece that is put to another cloth is cut from it as from the first, until you change it. Trims go by their
        length: say under Buy which edges they go on.
      </p>
    </>
  );
}
