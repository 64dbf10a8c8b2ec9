"""Buy: what is wished for the purchase. The purchase itself comes with the project."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ..store import records
from . import schemas as out
from .changes import change, within
from .context import begin, send
from .entries import LengthIn

blueprint = APIBlueprint("buy", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class PurchaseChange(out.In):
    """Any of the wishes for buying; what is left out stays."""

    ends: LengthIn | None = None
    spare: LengthIn | None = None
    shop_step: LengthIn | None = None


_NAMES = {"ends": "ends to straighten", "spare": "spare", "shop_step": "the shop's step"}
_LIMITS = {"ends": (0.0, 5000.0), "spare": (0.0, 50_000.0), "shop_step": (1.0, 5000.0)}


@blueprint.patch("/projects/<int:project_id>/purchase", operation_id="changePurchase", responses={200: out.ProjectOut})
def change_purchase(path: out.ProjectPath, body: PurchaseChange) -> Response:
    """Change the ends to straighten, the spare, or what the shop cuts in."""
    given = body.model_dump(exclude_unset=True, exclude_none=True)
    within(given, _LIMITS)
    with begin() as session:
        return send(change(session, records.project(session, path.project_id), given, "buy", _NAMES))
