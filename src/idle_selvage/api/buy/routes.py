"""Buy: what to ask for, where, with whom, whether the cupboard will do, the envelope, strips and the list."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from ...core.buy.envelope import SIZE_GIVE_MM
from ...core.units import BadEntry, read_length
from ...core.weights import told_weights
from ...core.wording import say, sentence_of
from ...core.written import with_fahrenheit
from ...formats.csv_list import list_csv
from ...operations.buy import cupboard, envelope, list, offers, purchase, strips, together
from ...operations.buy.trials import begin_trials, trials_standing
from ...operations.buy.wanted import wanted
from ...operations.project import cloth_use, garment, read_garment
from ...operations.refused import Refused
from ...operations.standing import garment_standing, standing
from ...store import models
from ...store.cloth import as_make
from ..project.show import project_out
from ..services import begin, look, send, services, submit
from ..shared.figures import presenter
from ..shared.files import attachment, file_name
from ..shared.person import system
from ..shared.schemas import ProjectPath, UseQuery
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


def change_purchase(path: ProjectPath, query: UseQuery, body: out.PurchaseChange) -> Response:
    """Change the ends to straighten, the spare, what is bought on purpose and why, or what the shop cuts in."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        purchase.change_purchase(session, row, body.model_dump(exclude_unset=True, exclude_none=True))
        return send(project_out(session, row))


def begin_trials_of(path: ProjectPath, query: UseQuery, body: out.TrialsIn) -> Response:
    """Try the lays that a part of Buy needs and does not have yet; nothing is begun when none is lacking."""
    with begin() as session:
        now = read_garment(session, path.project_id, query.use)
        requests = wanted(session, now, body.what, body.cloth_id)
        job = begin_trials(session, now, body.what, requests)
        job_id = None if job is None else job.id
        answer = trials_out(trials_standing(session, now, body.what, requests))
    submit(job_id)
    return send(answer, 202)


def read_trials(path: ProjectPath, query: out.TrialsQuery) -> Response:
    """How far the lays of a part of Buy are."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        requests = wanted(session, now, query.what, query.cloth_id)
        return send(trials_out(trials_standing(session, now, query.what, requests)))


def convert_length(query: out.ConvertQuery) -> Response:
    """A length or a weight in every unit, and the fractions of a yard."""
    if not query.length.strip():
        return send(convert_out(presenter(), None))
    try:
        weights = told_weights(query.length)
        if weights:
            return send(convert_out(presenter(), None, weights))
        return send(convert_out(presenter(), read_length(query.length, system())))
    except BadEntry as fault:
        raise Refused(sentence_of(fault), path="length") from None


def _offers(session: Session, use: models.ClothUse) -> out.OffersOut:
    now = standing(session, use)
    found = offers.read_offers(session, now)
    return offers_out(presenter(), now, found, trials_standing(session, now, "offers", found.wanted))


def read_offers(path: ProjectPath, query: UseQuery) -> Response:
    """Every offer with its lay, cost and waste, the project's own cloth first."""
    with look() as session:
        return send(_offers(session, cloth_use(session, path.project_id, query.use)))


def add_offer(path: ProjectPath, query: UseQuery, body: out.NewOffer) -> Response:
    """Put an offer beside the others."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        given = body.model_dump(exclude_unset=True, exclude={"shop_number"})
        offers.add_offer(session, row, given, services().shop, body.shop_number)
        return send(_offers(session, row), 201)


def change_offer(path: out.OfferPath, query: UseQuery, body: out.OfferChange) -> Response:
    """Change an offer."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        offers.change_offer(session, row, path.offer_id, body.model_dump(exclude_unset=True))
        return send(_offers(session, row))


def delete_offer(path: out.OfferPath, query: UseQuery) -> Response:
    """Take an offer out. It can be brought back."""
    return _take_out(path, query, gone=True)


def restore_offer(path: out.OfferPath, query: UseQuery) -> Response:
    """Bring an offer back."""
    return _take_out(path, query, gone=False)


def _take_out(path: out.OfferPath, query: UseQuery, *, gone: bool) -> Response:
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        offers.take_out(session, row, path.offer_id, gone=gone)
        return send(_offers(session, row))


def read_shop(path: ProjectPath, query: UseQuery) -> Response:
    """The shop's list for a cloth like the project's."""
    with look() as session:
        row, shop = cloth_use(session, path.project_id, query.use), services().shop
        quotes = shop.like(as_make(row.cloth))
        return send(shop_out(presenter(), shop.name, quotes, offers.added_numbers(session, row)))


def _together(session: Session, row: models.ClothUse) -> out.TogetherOut:
    now = standing(session, row)
    found = together.read_together(session, now)
    return together_out(presenter(), found, trials_standing(session, now, "together", found.wanted))


def read_together(path: ProjectPath, query: UseQuery) -> Response:
    """What laying several garments together on this project's cloth saves."""
    with look() as session:
        return send(_together(session, cloth_use(session, path.project_id, query.use)))


def choose_together(path: ProjectPath, query: UseQuery, body: out.TogetherIn) -> Response:
    """Choose which other projects are cut from the same cloth."""
    with begin() as session:
        row = cloth_use(session, path.project_id, query.use)
        together.choose(session, row, body.uses)
        return send(_together(session, row))


def read_will_it_do(path: ProjectPath, query: out.ClothQuery) -> Response:
    """Whether a cloth of the cupboard will do, and what would help."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        if query.cloth_id is None:
            return send(nothing_chosen(trials_standing(session, now, "cupboard", ())))
        found = cupboard.will_it_do(session, now, query.cloth_id)
        return send(will_it_do_out(presenter(), found, trials_standing(session, now, "cupboard", found.wanted)))


def read_envelope(path: ProjectPath, query: UseQuery) -> Response:
    """The envelope's chart, and what it says."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        return send(envelope_out(presenter(), envelope.read(session, now, SIZE_GIVE_MM[system()])))


def change_envelope(path: ProjectPath, query: UseQuery, body: out.EnvelopeIn) -> Response:
    """Keep what was typed from the envelope."""
    # only what was sent, but that whole
    given = {k: v for k, v in body.model_dump().items() if k in body.model_fields_set}
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        envelope.change_envelope(session, use, given)
        return send(envelope_out(presenter(), envelope.read(session, standing(session, use), SIZE_GIVE_MM[system()])))


def read_strips(path: ProjectPath, query: UseQuery) -> Response:
    """Gathered strips and bias tape, worked out."""
    with look() as session:
        return send(strips_out(presenter(), strips.read(session, read_garment(session, path.project_id, query.use))))


def change_strips(path: ProjectPath, query: UseQuery, body: out.StripsIn) -> Response:
    """Keep what was typed about strips."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        strips.change_strips(session, use, body.model_dump(exclude_unset=True))
        return send(strips_out(presenter(), strips.read(session, standing(session, use))))


def make_strips_pieces(path: ProjectPath, query: UseQuery, body: out.StripsPieceIn) -> Response:
    """Make strips pieces of the garment, so that they are laid and bought with it."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        strips.make_pieces(session, standing(session, use), body.what)
        return send(strips_out(presenter(), strips.read(session, standing(session, use))))


def _list(session: Session, row: models.Project) -> out.ListOut:
    return list_out(presenter(), list.read_list(session, garment_standing(session, row)))


def read_list(path: ProjectPath) -> Response:
    """Everything that must be in the house before the first cut, of every cloth."""
    with look() as session:
        return send(_list(session, garment(session, path.project_id)))


def add_item(path: ProjectPath, body: out.ItemIn) -> Response:
    """Put something on the list."""
    with begin() as session:
        row = garment(session, path.project_id)
        list.add_item(session, row, body.kind, body.name, body.amount)
        return send(_list(session, row), 201)


def delete_item(path: out.ItemPath) -> Response:
    """Take something off the list."""
    with begin() as session:
        row = garment(session, path.project_id)
        list.remove_item(session, row, path.item_id)
        return send(_list(session, row))


def have_item(path: out.ItemPath, body: out.HaveIn) -> Response:
    """Tick something off, or not."""
    with begin() as session:
        now = garment_standing(session, garment(session, path.project_id))
        list.have_item(session, now, path.item_id, have=body.have)
        return send(list_out(presenter(), list.read_list(session, now)))


def list_file(path: ProjectPath) -> Response:
    """The list as CSV."""
    with look() as session:
        row = garment(session, path.project_id)
        lines = [
            (
                i.label,
                i.name,
                say(i.amount, system()),
                with_fahrenheit(i.pretreat, system()),
                i.colour,
                "yes" if i.have else "no",
            )
            for i in list.read_list(session, garment_standing(session, row))
        ]
        return attachment(list_csv(lines), "text/csv", file_name(row, "list.csv"))
