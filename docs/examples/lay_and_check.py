# %% [markdown]
# # Pieces from a drawing, laid on a width, judged by the checker
# The checker knows the two open formats and nothing of the engine.

# %%
import json
from pathlib import Path

import idle_selvage.core as core
from idle_selvage.formats.reading import take_in
from idle_selvage.formats.writing import write

drawing = Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg"
taken = take_in(drawing.read_bytes(), drawing.name)
for read in taken.pieces:
    print(f"  {read.name}: {read.how.copies} to cut{', on the fold' if read.how.on_fold else ''}")

# %% [markdown]
# The same pieces as a lay problem on cloth 1.40 m wide; two hundred steps with one seed give one lay on every machine.

# %%
problem = core.read_problem(json.loads(write(taken.pieces, "json", width=1400.0)))
answer = core.solve(problem, seed=1, steps=200, clock=lambda: 0.0)
print(f"laid on {answer.lay.length / 1000:.2f} m; no lay is shorter than {answer.lay.bound / 1000:.2f} m")

# %%
faults = core.check_lay(core.problem_to_json(problem), core.lay_to_json(answer.lay))
print(faults or "sound")
