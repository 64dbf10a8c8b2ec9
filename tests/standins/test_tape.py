"""The stand-in tape."""

from __future__ import annotations

from idle_selvage.standins.tape import KEPT, Tape


def test_readings_are_taken_once_and_in_order() -> None:
    tape = Tape()
    _, start = tape.since(0)
    sent = [tape.push(mm) for mm in (248.5, 247.0)]
    readings, last = tape.since(start)
    assert [r.mm for r in readings] == [248.5, 247.0] and last == sent[-1].number
    assert tape.since(last)[0] == [] and [r.mm for r in tape.since(sent[0].number)[0]] == [247.0]
    for n in range(KEPT + 5):
        tape.push(float(n))
    assert len(tape.since(0)[0]) == KEPT
