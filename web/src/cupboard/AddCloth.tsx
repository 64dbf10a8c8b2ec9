import { useAct } from '../app/useAct';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Choice } from '../fields/Choice';
import { useChanges, useChoices, useCupboard } from '../api/hooks';

/** Another cloth for the garment: a new one by its name, or one of the cupboard; the same one twice where it is cut two ways. */
export function AddCloth() {
  const changes = useChanges();
  const choices = useChoices();
  const cupboard = useCupboard();
  const named = cupboard.data?.cloths.filter((l) => l.cloth.name) ?? [];
  const [role, setRole] = useState('lining');
  const [name, setName] = useState('');
  const {
    run: add,
    busy,
    error,
  } = useAct(
    async (body: { cloth_id?: number; name?: string }) => {
      await changes.addUse({ name: '', ...body, role });
      setName('');
    },
    { once: true },
  );
  return (
    <form
      className="bench-new"
      onSubmit={(e) => {
        e.preventDefault();
        void add({ name });
      }}
    >
      <label htmlFor="use-role">Put beside it</label>
      <select id="use-role" className="choice" value={role} onChange={(e) => setRole(e.target.value)}>
        {choices?.roles.map((r) => (
          <option key={r.value} value={r.value}>
            {r.label}
          </option>
        ))}
      </select>
      <Input
        aria-label="Its name"
        value={name}
        onChange={(e) => setName(e.target.value)}
        placeholder="a new one, by its name"
      />
      <Button htmlType="submit" loading={busy}>
        Put beside
      </Button>
      {named.length > 0 && (
        <span className="which-choice">
          <Choice
            id="use-cloth"
            label="Or one of the cupboard"
            value=""
            placeholder="or one of the cupboard"
            wrong={false}
            onChoose={(id) => void add({ cloth_id: Number(id) })}
            options={named.map((l) => ({ value: String(l.cloth.id), label: l.cloth.name }))}
          />
        </span>
      )}
      {error && (
        <span className="say spoil" role="alert">
          {error}
        </span>
      )}
    </form>
  );
}
