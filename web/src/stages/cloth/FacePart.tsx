import { useChoices } from '../../api/hooks';
import { EntryChoice, EntryText, EntryTick } from '../../fields/Entry';
import { Explained } from '../../app/Words';
import type { PartProps } from '../../cupboard/ClothEditor';

/** Which side shows, how it is marked, and which way up it must be cut. */
export function FacePart({ cloth, onChange }: PartProps) {
  const choices = useChoices();
  const runs = cloth.direction === 'nap' || cloth.direction === 'stroke';
  return (
    <>
      <EntryText
        label="The face is"
        path="face"
        value={cloth.face}
        placeholder="such as the shinier side"
        onSave={(face) => onChange({ face })}
      />
      <EntryText
        label="How the face or back is marked"
        path="face_mark"
        value={cloth.face_mark}
        placeholder="such as chalk on the back"
        onSave={(face_mark) => onChange({ face_mark })}
      />
      <EntryTick
        label="Both sides may show: a piece may be turned over"
        value={cloth.reversible}
        onSave={(reversible) => onChange({ reversible })}
      />
      {!cloth.face && !cloth.reversible && (
        <p className="quiet">No difference? Choose one side, and mark every piece on its back.</p>
      )}
      <EntryChoice
        label="Direction"
        value={cloth.direction}
        options={choices?.directions ?? []}
        onSave={(direction) => onChange({ direction })}
      />
      {cloth.one_way && (
        <p className="quiet">
          <Explained text="It has a nap, or a print with a top: all tops lie the same way." />
        </p>
      )}
      {runs && (
        <>
          <EntryChoice
            label={cloth.direction === 'nap' ? 'The pile will run' : 'The stroke will run'}
            value={cloth.pile}
            options={choices?.piles ?? []}
            onSave={(pile) => onChange({ pile })}
          />
          <p className="quiet">
            <Explained text={cloth.pile_note} />
          </p>
          <EntryText label="Why" path="pile_why" value={cloth.pile_why} onSave={(pile_why) => onChange({ pile_why })} />
        </>
      )}
      {cloth.weave === 'corduroy' && (
        <>
          <EntryText
            label="Wales to the inch"
            path="wales"
            value={cloth.wales?.toString() ?? ''}
            placeholder="count over 1 in (2.5 cm)"
            onSave={(text) => onChange({ wales: text.trim() ? text : null })}
          />
          <p>{cloth.wale_note}</p>
        </>
      )}
      <EntryChoice
        label="Colouring"
        value={cloth.colouring}
        options={choices?.colourings ?? []}
        onSave={(colouring) => onChange({ colouring })}
      />
    </>
  );
}
