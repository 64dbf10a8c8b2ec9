# %% [markdown]
# # From a washed swatch to what is said at the counter
# Three marked distances of 25 cm each way, washed once; a lay of 2.14 m on the washed cloth.

# %%
import idle_selvage.core as core

warp = core.swatch_shrinkage([250, 250, 250], [238, 237, 238], graduation=1.0, direction="warp")
print(f"along: {warp.value:.1f} %, somewhere from {warp.low:.1f} to {warp.high:.1f} %")

# %% [markdown]
# What is bought is never too little: it goes by the high end. The needed length is *divided* by what is left.

# %%
planned = core.plan_with(warp)
bought = core.purchase(2140.0, planned, core.Order(ends=100.0, spare=50.0, step=100.0))
for line in bought.lines:
    print(f"  {line.name}: {line.adds / 1000:.3f} m")
print("to buy:", core.quantity_text(bought.to_buy.quantity, "metric"))

# %% [markdown]
# The working gives the figure again from the numbers that are shown.

# %%
for step in bought.to_buy.steps:
    print(f"  {step.label}: {step.formula} = {core.quantity_text(step.result, 'metric', fine=True)}")
