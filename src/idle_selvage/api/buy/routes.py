"""Buy: what to ask for, where, with whom, whether the cupboard will do, the envelope, strips and the list."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from ...core.units import BadEntry, read_length
from ...core.wording import say, sentence_of
from ...formats.csv_list import list_csv
from ...operations.buy import cupboard, envelope, list, offers, purchase, strips, together
from ...operations.buy.trials import begin_trials, trials_standing
from ...operations.buy.wanted import wanted
from ...operations.project import garment, read_garment
from ...operations.refused import Refused
from ...operations.standing import Standing
from ...store import models
from ...store.cloth import as_make
from ..project.show import project_out
from ..services import begin, look, send, services, submit
from ..shared.figures import presenter
from ..shared.files import attachment, file_name
from ..shared.person import system
from ..shared.schemas import ProjectPath
from . import schemas as out
from .show import (
    convert_out,
    envelope_out,
    list_out,
    nothing_chosen,
    offers_out,
    shop_out,
    strips_out,
    together_out,
    trials_out,
    will_it_do_out,
)


def change_purchase(path: ProjectPath, body: out.PurchaseChange) -> Response:
    """Change the ends to straighten, the spare, what is bought on purpose and why, or what the shop cuts in."""
    with begin() as session:
        row = garment(session, path.project_id)
        purchase.change_purchase(session, row, body.model_dump(exclude_unset=True, exclude_none=True))
        return send(project_out(session, row))


def begin_trials_of(path: ProjectPath, body: out.TrialsIn) -> Response:
    """Try the lays that a part of Buy needs and does not have yet; nothing is begun when none is lacking."""
    with begin() as session:
        now = read_garment(session, path.project_id)
        requests = wanted(session, now, body.what, body.cloth_id)
        job = begin_trials(session, now, body.what, requests)
        job_id = None if job is None else job.id
        answer = trials_out(trials_standing(session, now, body.what, requests))
    submit(job_id)
    return send(answer, 202)


def read_trials(path: ProjectPath, query: out.TrialsQuery) -> Response:
    """How far the lays of a part of Buy are."""
    with look() as session:
        now = read_garment(session, path.project_id)
        requests = wanted(session, now, query.what, query.cloth_id)
        return send(trials_out(trials_standing(session, now, query.what, requests)))


def convert_length(query: out.ConvertQuery) -> Response:
    """A length in every unit, and the fractions of a yard."""
    if not query.length.strip():
        return send(convert_out(None))
    try:
        return send(convert_out(read_length(query.length, system())))
    except BadEntry as fault:
        raise Refused(sentence_of(fault), path="length") from None


def _offers(session: Session, number: int) -> out.OffersOut:
    now = read_garment(session, number)
    found = offers.read_offers(session, now)
    return offers_out(presenter(), now, found, trials_standing(session, now, "offers", found.wanted))


def read_offers(path: ProjectPath) -> Response:
    """Every offer with its lay, cost and waste, the project's own cloth first."""
    with look() as session:
        return send(_offers(session, path.project_id))


def add_offer(path: ProjectPath, body: out.NewOffer) -> Response:
    """Put an offer beside the others."""
    with begin() as session:
        row = garment(session, path.project_id)
        given = body.model_dump(exclude_unset=True, exclude={"shop_number"})
        offers.add_offer(session, row, given, services().shop, body.shop_number)
        return send(_offers(session, row.id), 201)


def change_offer(path: out.OfferPath, body: out.OfferChange) -> Response:
    """Change an offer."""
    with begin() as session:
        row = garment(session, path.project_id)
        offers.change_offer(session, row, path.offer_id, body.model_dump(exclude_unset=True))
        return send(_offers(session, row.id))


def delete_offer(path: out.OfferPath) -> Response:
    """Take an offer out. It can be brought back."""
    return _take_out(path, gone=True)


def restore_offer(path: out.OfferPath) -> Response:
    """Bring an offer back."""
    return _take_out(path, gone=False)


def _take_out(path: out.OfferPath, *, gone: bool) -> Response:
    with begin() as session:
        row = garment(session, path.project_id)
        offers.take_out(session, row, path.offer_id, gone=gone)
        return send(_offers(session, row.id))


def read_shop(path: ProjectPath) -> Response:
    """The shop's list for a cloth like the project's."""
    with look() as session:
        row, shop = garment(session, path.project_id), services().shop
        quotes = shop.like(as_make(row.cloth))
        return send(shop_out(presenter(), shop.name, quotes, offers.added_numbers(session, row)))


def _together(session: Session, row: models.Project) -> out.TogetherOut:
    now = read_garment(session, row.id)
    found = together.read_together(session, now)
    return together_out(presenter(), found, trials_standing(session, now, "together", found.wanted))


def read_together(path: ProjectPath) -> Response:
    """What laying several garments together on this project's cloth saves."""
    with look() as session:
        return send(_together(session, garment(session, path.project_id)))


def choose_together(path: ProjectPath, body: out.TogetherIn) -> Response:
    """Choose which other projects are cut from the same cloth."""
    with begin() as session:
        row = garment(session, path.project_id)
        together.choose(session, row, body.projects)
        return send(_together(session, row))


def read_will_it_do(path: ProjectPath, query: out.ClothQuery) -> Response:
    """Whether a cloth of the cupboard will do, and what would help."""
    with look() as session:
        now = read_garment(session, path.project_id)
        if query.cloth_id is None:
            return send(nothing_chosen(trials_standing(session, now, "cupboard", ())))
        found = cupboard.will_it_do(session, now, query.cloth_id)
        return send(will_it_do_out(presenter(), found, trials_standing(session, now, "cupboard", found.wanted)))


def read_envelope(path: ProjectPath) -> Response:
    """The envelope's chart, and what it says."""
    with look() as session:
        return send(envelope_out(presenter(), envelope.read(session, read_garment(session, path.project_id))))


def change_envelope(path: ProjectPath, body: out.EnvelopeIn) -> Response:
    """Keep what was typed from the envelope."""
    # only what was sent, but that whole
    given = {k: v for k, v in body.model_dump().items() if k in body.model_fields_set}
    with begin() as session:
        envelope.change_envelope(session, garment(session, path.project_id), given)
        return send(envelope_out(presenter(), envelope.read(session, read_garment(session, path.project_id))))


def read_strips(path: ProjectPath) -> Response:
    """Gathered strips and bias tape, worked out."""
    with look() as session:
        return send(strips_out(presenter(), strips.read(session, read_garment(session, path.project_id))))


def change_strips(path: ProjectPath, body: out.StripsIn) -> Response:
    """Keep what was typed about strips."""
    with begin() as session:
        strips.change_strips(session, garment(session, path.project_id), body.model_dump(exclude_unset=True))
        return send(strips_out(presenter(), strips.read(session, read_garment(session, path.project_id))))


def _list(session: Session, now: Standing) -> out.ListOut:
    return list_out(presenter(), list.read_list(session, now))


def read_list(path: ProjectPath) -> Response:
    """Everything that must be in the house before the first cut."""
    with look() as session:
        return send(_list(session, read_garment(session, path.project_id)))


def add_item(path: ProjectPath, body: out.ItemIn) -> Response:
    """Put something on the list."""
    with begin() as session:
        list.add_item(session, garment(session, path.project_id), body.kind, body.name, body.amount)
        return send(_list(session, read_garment(session, path.project_id)), 201)


def delete_item(path: out.ItemPath) -> Response:
    """Take something off the list."""
    with begin() as session:
        list.remove_item(session, garment(session, path.project_id), path.item_id)
        return send(_list(session, read_garment(session, path.project_id)))


def have_item(path: out.ItemPath, body: out.HaveIn) -> Response:
    """Tick something off, or not."""
    with begin() as session:
        now = read_garment(session, path.project_id)
        list.have_item(session, now, path.item_id, have=body.have)
        return send(_list(session, now))


def list_file(path: ProjectPath) -> Response:
    """The list as CSV."""
    with look() as session:
        now = read_garment(session, path.project_id)
        lines = [
            (i.label, i.name, say(i.amount, system()), i.pretreat, i.colour, "yes" if i.have else "no")
            for i in list.read_list(session, now)
        ]
        return attachment(list_csv(lines), "text/csv", file_name(now.garment, "list.csv"))
