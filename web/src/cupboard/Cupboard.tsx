import { useAct } from '../app/useAct';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, saved } from '../api/client';
import { useClothNews, useCupboard } from '../api/hooks';
import { CupboardList } from './CupboardList';
import { Stage } from '../app/Stage';

/** The cupboard: every cloth and remnant across projects. */
export function Cupboard() {
  const go = useNavigate();
  const news = useClothNews();
  const [words, setWords] = useState('');
  const [name, setName] = useState('');
  const list = useCupboard(words);
  const lines = list.data?.cloths ?? [];
  const of = list.data?.of ?? 0;

  const {
    run: add,
    busy,
    error,
  } = useAct(
    async () => {
      const cloth = await saved(api.POST('/api/cloths', { body: { name } }));
      news();
      void go(`/cupboard/${cloth.id}`);
    },
    { once: true },
  );
  return (
    <Stage className="bench">
      <h1>
        {!list.data
          ? 'Fetching …'
          : of === 0
            ? 'The cupboard is empty'
            : words
              ? `${lines.length} of ${of} cloths`
              : `${of} ${of === 1 ? 'cloth' : 'cloths'} in the cupboard`}
      </h1>
      <div className="bench-new">
        <label htmlFor="words">Find</label>
        <Input
          id="words"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          placeholder="linen, blue box, WP 4107 …"
          allowClear={false}
        />
        <form
          className="bench-new inline"
          onSubmit={(e) => {
            e.preventDefault();
            void add();
          }}
        >
          <label htmlFor="new-cloth">Put in</label>
          <Input
            id="new-cloth"
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder="a name for the cloth"
            status={error ? 'error' : undefined}
          />
          <Button type="primary" htmlType="submit" loading={busy}>
            Put in
          </Button>
          {error && (
            <span className="say spoil" role="alert">
              {error}
            </span>
          )}
        </form>
      </div>
      {list.isError && <p className="spoil">{list.error.message}</p>}
      <CupboardList lines={lines} onChoose={(id) => void go(`/cupboard/${id}`)} />
      {list.data && words && lines.length === 0 && <p>No cloth has all these words in its facts.</p>}
    </Stage>
  );
}
