import { Button } from "antd";
import { useState } from "react";
import { useChanges } from "../api/hooks";

/** Why lay and purchase no longer hold, and the one touch that mends it. */
export function OutOfDate({ why }: { why: string }) {
  const changes = useChanges();
  const [error, setError] = useState("");
  async function refresh() {
    setError("");
    try {
      await changes.refresh();
    } catch (fault) {
      setError((fault as Error).message);
    }
  }
  return (
    <p className="look out-of-date" role="status">
      {why} <Button size="small" onClick={() => void refresh()}>Bring up to date</Button>
      {error && <span className="spoil" role="alert">{error}</span>}
    </p>
  );
}
