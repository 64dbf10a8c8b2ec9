/** Enter goes on: to the next field of the same page or drawer, in the order they stand. */
export function goOn(from: HTMLElement) {
  const home = from.closest('main, .ant-drawer-body, header') ?? document.body;
  const fields = [...home.querySelectorAll<HTMLInputElement>('input[data-entry]')].filter(
    (one) => one.getClientRects().length > 0,
  );
  const next = fields[fields.indexOf(from as HTMLInputElement) + 1];
  next?.focus();
  next?.select();
}
