import { useChoices } from '../../api/hooks';
import { EntryChoice } from '../../fields/Entry';
import type { PartProps } from '../../cupboard/ClothEditor';
import { HandPicture } from '../../draw/HandPicture';

/** Short questions a person answers with cloth in hand, and what the answers change. */
export function HandPart({ cloth, onChange }: PartProps) {
  const choices = useChoices();
  return (
    <>
      {choices?.questions.map((q) => (
        <section key={q.key} className="question">
          <HandPicture question={q.key} />
          <div>
            <EntryChoice
              label={q.asks}
              value={cloth.answers[q.key] ?? ''}
              placeholder="not tried yet"
              options={q.answers}
              onSave={(value) => onChange({ answers: { [q.key]: value } })}
            />
            <p className="quiet">{q.how}</p>
          </div>
        </section>
      ))}
      <section className="question">
        <HandPicture question="rub" />
        <div>
          <EntryChoice
            label="Does the dye rub off?"
            value={cloth.rub_grade ? String(cloth.rub_grade) : ''}
            placeholder="not tried yet"
            options={choices?.grades ?? []}
            onSave={(grade) => onChange({ rub_grade: Number(grade) })}
          />
          <p className="quiet">Rub a hidden place ten times with a wet white rag, and look at the rag.</p>
        </div>
      </section>
      {cloth.dye_note && <p className={cloth.washed_alone ? 'look' : ''}>{cloth.dye_note}</p>}
      {cloth.advice.map((a) => (
        <p key={a}>{a}</p>
      ))}
    </>
  );
}
