import { App, Button } from "antd";

/** Says that something was taken away, with a button that brings it back. */
export function useUndo() {
  const { message } = App.useApp();
  return (key: string, text: string, back: () => Promise<unknown>) =>
    void message.open({
      key,
      duration: 12,
      content: (
        <>
          {text}{" "}
          <Button size="small" onClick={async () => { await back(); message.destroy(key); }}>
            Bring it back
          </Button>
        </>
      ),
    });
}
