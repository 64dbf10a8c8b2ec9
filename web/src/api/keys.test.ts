import { QueryClient } from '@tanstack/react-query';
import { expect, it } from 'vitest';
import { every, keys } from './keys';

it("a garment's key begins those of all that is shown of it, and no other's", () => {
  const client = new QueryClient();
  for (const key of [keys.project(1, 'main'), keys.project(1, 5), keys.sheet(1, 'main'), keys.project(11, 'main')])
    client.setQueryData(key, {});
  const found = client.getQueryCache().findAll({ queryKey: keys.project(1) });
  expect(found.map((one) => one.queryKey)).toEqual([
    keys.project(1, 'main'),
    keys.project(1, 5),
    keys.sheet(1, 'main'),
  ]);
  expect(client.getQueryCache().findAll(every('project'))).toHaveLength(4);
  expect(client.getQueryCache().findAll(every('projects'))).toHaveLength(0);
});
