import { WashdayPart } from "./WashdayPart";

/** The washing day by itself, over all projects. */
export function WashdayPage() {
  return (
    <main className="stage bench">
      <WashdayPart />
    </main>
  );
}
