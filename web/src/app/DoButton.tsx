import { Button, type ButtonProps } from 'antd';
import { useOnce } from './useOnce';

/** A command that makes something: touched twice in a row it does it once, however quickly the first one was answered. */
export function DoButton({
  onDo,
  ...rest
}: Omit<ButtonProps, 'onClick' | 'loading'> & { onDo: () => Promise<unknown> }) {
  const [busy, run] = useOnce(onDo);
  // the second click of a double click says so itself
  return (
    <Button
      {...rest}
      loading={busy}
      onClick={(event) => {
        if (event.detail < 2) void run();
      }}
    />
  );
}
