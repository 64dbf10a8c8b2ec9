"""Every address of the API on one page: method, address, the name it has in the document, and what answers.

A route takes the path, the query or the body as its schema, begins a session, calls an operation and shows what it
gives. What may go wrong is the same everywhere: a bad entry (422) or nothing there (404), in one shape.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from ..formats.writing import MEDIA
from .buy import routes as buy
from .buy import schemas as buy_out
from .cloth import routes as cloth
from .cloth import schemas as cloth_out
from .cut import routes as cut
from .cut import schemas as cut_out
from .devices import pairing
from .devices import routes as devices
from .devices import schemas as devices_out
from .lay import hand
from .lay import routes as lay
from .lay import schemas as lay_out
from .log import outcome, timeline
from .log import outcome_schemas as outcome_out
from .log import routes as log
from .log import schemas as log_out
from .match import routes as match
from .match import schemas as match_out
from .plan import routes as plan
from .plan import schemas as plan_out
from .plan import taking_in
from .project import archive, copies
from .project import routes as project
from .project import schemas as project_out
from .shared import schemas as shared_out
from .shared.files import described
from .shared.schemas import ErrorOut
from .shrink import routes as shrink
from .shrink import schemas as shrink_out
from .true import routes as true
from .true import schemas as true_out
from .washday import routes as washday
from .washday import schemas as washday_out

JPEG = described("the photo", "image/jpeg", {"type": "string", "format": "binary"})
ICS = described("the plan as iCalendar (RFC 5545)", "text/calendar")
CSV = described("the list, a line each", "text/csv")
SVG = described("the lay at 1:1, in millimetres", "image/svg+xml")
LAY_JSON = described("the format of docs/lay-formats.md", "application/json", {"type": "object"})

ZIP = described("an archive", "application/zip", {"type": "string", "format": "binary"})
REPORT = described("what can be told of a fault", "text/plain")
LOG_CSV = described("the log as a table", "text/csv")
PIECES = {
    "description": "the pieces in an open format",
    "content": {
        media.partition(";")[0]: {"schema": {"type": "string", "format": "binary"}} for media in MEDIA.values()
    },
}
PDF = described("for printing, in millimetres", "application/pdf", {"type": "string", "format": "binary"})

#: One project, and one cloth.
P = "/projects/<int:project_id>"
C = "/cloths/<int:cloth_id>"

#: With what any of them may refuse: a device that is not paired, another site, nothing there, a method it has not,
#: changed elsewhere meanwhile, too large, a bad entry, data that cannot be written just now.
REFUSALS = (401, 403, 404, 405, 409, 413, 422, 503)

Address = tuple[str, str, str, Callable[..., Response], int, Any]

ADDRESSES: tuple[Address, ...] = (
    # project
    ("GET", "/health", "health", project.health, 200, project_out.HealthOut),
    ("GET", "/settings", "readSettings", project.read_settings, 200, project_out.SettingsOut),
    ("PATCH", "/settings", "changeSettings", project.change_settings, 200, project_out.SettingsOut),
    ("POST", "/lengths/read", "readLength", project.read_length, 200, shared_out.LengthOut),
    ("GET", "/lengths/write", "writeLength", project.write_length, 200, shared_out.LengthOut),
    ("GET", "/choices", "readChoices", project.read_choices, 200, project_out.ChoicesOut),
    ("GET", "/projects", "listProjects", project.list_projects, 200, project_out.ProjectsOut),
    ("POST", "/projects", "addProject", project.add_project, 201, project_out.ProjectOut),
    ("POST", "/projects/example", "addExample", project.add_example, 201, project_out.ProjectOut),
    ("GET", f"{P}", "readProject", project.read_project, 200, project_out.ProjectOut),
    ("PATCH", f"{P}", "changeProject", project.change_project, 200, project_out.ProjectOut),
    ("PUT", f"{P}/asides", "setAside", project.set_aside, 200, project_out.ProjectOut),
    ("DELETE", f"{P}", "deleteProject", project.delete_project, 200, project_out.ProjectsOut),
    (
        "POST",
        f"{P}/restore",
        "restoreProject",
        project.restore_project,
        200,
        project_out.ProjectOut,
    ),
    ("GET", "/archive.zip", "wholeArchive", archive.whole_archive, 200, ZIP),
    ("GET", f"{P}/archive.zip", "garmentArchive", archive.garment_archive, 200, ZIP),
    ("GET", f"{C}/archive.zip", "clothArchive", archive.cloth_archive, 200, ZIP),
    ("POST", "/archives", "takeArchiveIn", archive.take_archive_in, 201, project_out.ArchiveOut),
    ("GET", "/copies", "readCopies", copies.read_copies, 200, project_out.DailyCopiesOut),
    ("POST", "/copies/back", "goBackTo", copies.go_back_to, 200, project_out.DailyCopiesOut),
    ("GET", "/report.txt", "readReport", copies.read_report, 200, REPORT),
    # plan
    ("POST", "/plan/outline", "drawOutline", plan.draw_outline, 200, plan_out.OutlineOut),
    ("GET", f"{P}/sheet", "readSheet", plan.read_sheet, 200, plan_out.SheetOut),
    ("POST", f"{P}/ease", "readEase", plan.read_ease, 200, plan_out.EaseOut),
    ("GET", "/pieces/<int:piece_id>/draft", "readDraft", plan.read_draft, 200, plan_out.DraftOut),
    ("GET", "/pieces/<int:piece_id>/pages", "readPages", plan.read_pages, 200, plan_out.PagesOut),
    ("PUT", "/pieces/<int:piece_id>/sizes", "gradePiece", plan.grade_piece, 200, project_out.ProjectOut),
    ("POST", f"{P}/pieces", "addPiece", plan.add_piece, 201, project_out.ProjectOut),
    ("POST", f"{P}/pieces/svg", "importPieces", plan.import_pieces, 201, project_out.ImportOut),
    ("POST", "/plan/taking-in", "lookInto", taking_in.look_into, 200, plan_out.TakenOut),
    ("POST", f"{P}/pieces/taken-in", "keepTaken", taking_in.keep_taken, 201, project_out.ImportOut),
    ("GET", f"{P}/pieces.file", "piecesFile", taking_in.pieces_file, 200, PIECES),
    ("PATCH", "/pieces/<int:piece_id>", "changePiece", plan.change_piece, 200, project_out.ProjectOut),
    ("DELETE", "/pieces/<int:piece_id>", "deletePiece", plan.delete_piece, 200, project_out.ProjectOut),
    ("POST", "/pieces/<int:piece_id>/restore", "restorePiece", plan.restore_piece, 200, project_out.ProjectOut),
    ("PUT", "/pieces/<int:piece_id>/cuts/<int:use_id>", "changeCut", plan.change_cut, 200, project_out.ProjectOut),
    ("DELETE", "/pieces/<int:piece_id>/cuts/<int:use_id>", "deleteCut", plan.delete_cut, 200, project_out.ProjectOut),
    # cloth
    ("PATCH", f"{P}/cloth", "changeCloth", cloth.change_cloth, 200, project_out.ProjectOut),
    ("GET", "/cloths", "listCloths", cloth.list_cloths, 200, cloth_out.CupboardOut),
    ("POST", "/cloths", "addCloth", cloth.add_cloth, 201, cloth_out.ClothOut),
    ("GET", f"{C}", "readCloth", cloth.read_cloth, 200, cloth_out.ClothOut),
    ("PATCH", f"{C}", "changeAnyCloth", cloth.change_any_cloth, 200, cloth_out.ClothOut),
    ("DELETE", f"{C}", "deleteCloth", cloth.delete_cloth, 200, cloth_out.CupboardOut),
    ("POST", f"{C}/restore", "restoreCloth", cloth.restore_cloth, 200, cloth_out.ClothOut),
    ("PUT", f"{C}/photo", "keepPhoto", cloth.keep_photo, 200, cloth_out.ClothOut),
    ("GET", f"{C}/photo", "readPhoto", cloth.read_photo, 200, JPEG),
    ("DELETE", f"{C}/photo", "deletePhoto", cloth.delete_photo, 200, cloth_out.ClothOut),
    ("POST", f"{C}/photo/restore", "restorePhoto", cloth.restore_photo, 200, cloth_out.ClothOut),
    ("POST", f"{C}/washes", "addWash", cloth.add_wash, 201, cloth_out.ClothOut),
    ("DELETE", f"{C}/washes/<int:wash_id>", "deleteWash", cloth.delete_wash, 200, cloth_out.ClothOut),
    (
        "POST",
        f"{C}/washes/<int:wash_id>/restore",
        "restoreWash",
        cloth.restore_wash,
        200,
        cloth_out.ClothOut,
    ),
    ("PUT", f"{P}/cloth/use", "useCloth", cloth.use_cloth, 200, project_out.ProjectOut),
    ("POST", f"{P}/uses", "addUse", cloth.add_use, 201, project_out.ProjectOut),
    ("PATCH", f"{P}/uses/<int:use_id>", "changeUse", cloth.change_use, 200, project_out.ProjectOut),
    ("DELETE", f"{P}/uses/<int:use_id>", "deleteUse", cloth.delete_use, 200, project_out.ProjectOut),
    ("POST", f"{P}/uses/<int:use_id>/restore", "restoreUse", cloth.restore_use, 200, project_out.ProjectOut),
    ("PUT", f"{P}/uses/<int:use_id>/runs", "keepRuns", cloth.keep_runs, 200, project_out.ProjectOut),
    # shrink
    ("GET", f"{P}/shrink", "readShrink", shrink.read_shrink, 200, shrink_out.ShrinkOut),
    ("PUT", f"{P}/swatch", "keepSwatch", shrink.keep_swatch, 200, project_out.SwatchKeptOut),
    ("POST", f"{P}/swatches", "addSwatch", shrink.add_swatch, 201, project_out.SwatchKeptOut),
    ("PUT", f"{P}/swatch/use", "useSwatch", shrink.use_swatch, 200, project_out.SwatchKeptOut),
    (
        "POST",
        f"{P}/swatch/wash",
        "washSwatch",
        shrink.wash_swatch,
        200,
        project_out.SwatchKeptOut,
    ),
    (
        "PATCH",
        f"{P}/treatment",
        "chooseSchool",
        shrink.choose_school,
        200,
        project_out.ProjectOut,
    ),
    # washday
    ("GET", "/washday", "readWashday", washday.read_washday, 200, washday_out.WashdayOut),
    ("PATCH", "/washday", "changeHouse", washday.change_house, 200, washday_out.WashdayOut),
    ("POST", "/washday/plan", "planWashday", washday.plan_washday, 200, washday_out.WashdayOut),
    ("POST", "/washday/steps/<int:task_id>/begin", "beginStep", washday.begin_step, 200, washday_out.WashdayOut),
    ("POST", "/washday/steps/<int:task_id>/end", "endStep", washday.end_step, 200, washday_out.WashdayOut),
    ("POST", "/washday/steps/<int:task_id>/back", "takeStepBack", washday.take_step_back, 200, washday_out.WashdayOut),
    ("GET", "/washday/plan.ics", "washdayIcs", washday.washday_ics, 200, ICS),
    # devices
    ("POST", "/tape/readings", "sendReading", devices.send_reading, 201, devices_out.TapeReadingOut),
    ("GET", "/tape/readings", "takeReadings", devices.take_readings, 200, devices_out.TapeOut),
    # buy
    (
        "PATCH",
        f"{P}/purchase",
        "changePurchase",
        buy.change_purchase,
        200,
        project_out.ProjectOut,
    ),
    ("POST", f"{P}/trials", "beginTrials", buy.begin_trials_of, 202, buy_out.TrialsOut),
    ("GET", f"{P}/trials", "readTrials", buy.read_trials, 200, buy_out.TrialsOut),
    ("GET", "/convert", "convertLength", buy.convert_length, 200, buy_out.ConvertOut),
    ("GET", f"{P}/offers", "readOffers", buy.read_offers, 200, buy_out.OffersOut),
    ("POST", f"{P}/offers", "addOffer", buy.add_offer, 201, buy_out.OffersOut),
    (
        "PATCH",
        f"{P}/offers/<int:offer_id>",
        "changeOffer",
        buy.change_offer,
        200,
        buy_out.OffersOut,
    ),
    (
        "DELETE",
        f"{P}/offers/<int:offer_id>",
        "deleteOffer",
        buy.delete_offer,
        200,
        buy_out.OffersOut,
    ),
    (
        "POST",
        f"{P}/offers/<int:offer_id>/restore",
        "restoreOffer",
        buy.restore_offer,
        200,
        buy_out.OffersOut,
    ),
    ("GET", f"{P}/shop", "readShop", buy.read_shop, 200, buy_out.ShopOut),
    ("GET", f"{P}/together", "readTogether", buy.read_together, 200, buy_out.TogetherOut),
    ("PUT", f"{P}/together", "chooseTogether", buy.choose_together, 200, buy_out.TogetherOut),
    ("GET", f"{P}/will-it-do", "readWillItDo", buy.read_will_it_do, 200, buy_out.WillItDoOut),
    ("GET", f"{P}/envelope", "readEnvelope", buy.read_envelope, 200, buy_out.EnvelopeOut),
    ("PATCH", f"{P}/envelope", "changeEnvelope", buy.change_envelope, 200, buy_out.EnvelopeOut),
    ("GET", f"{P}/strips", "readStrips", buy.read_strips, 200, buy_out.StripsOut),
    ("PATCH", f"{P}/strips", "changeStrips", buy.change_strips, 200, buy_out.StripsOut),
    ("POST", f"{P}/strips/pieces", "makeStripsPieces", buy.make_strips_pieces, 200, buy_out.StripsOut),
    ("GET", f"{P}/list", "readList", buy.read_list, 200, buy_out.ListOut),
    ("POST", f"{P}/list", "addItem", buy.add_item, 201, buy_out.ListOut),
    ("DELETE", f"{P}/list/<string:item_id>", "deleteItem", buy.delete_item, 200, buy_out.ListOut),
    ("PUT", f"{P}/list/<string:item_id>/have", "haveItem", buy.have_item, 200, buy_out.ListOut),
    ("GET", f"{P}/list.csv", "listCsv", buy.list_file, 200, CSV),
    # true
    ("GET", f"{P}/true", "readTrue", true.read_true, 200, true_out.TrueOut),
    ("PATCH", f"{P}/true", "changeTrue", true.change_true, 200, true_out.TrueKeptOut),
    ("POST", f"{P}/true/tests", "addTest", true.add_test, 201, true_out.TrueKeptOut),
    (
        "DELETE",
        f"{P}/true/tests/<int:test_id>",
        "deleteTest",
        true.delete_test,
        200,
        true_out.TrueKeptOut,
    ),
    (
        "POST",
        f"{P}/true/tests/<int:test_id>/restore",
        "restoreTest",
        true.restore_test,
        200,
        true_out.TrueKeptOut,
    ),
    # lay
    ("PATCH", f"{P}/lay", "changeLayWishes", lay.change_lay_wishes, 200, project_out.ProjectOut),
    ("POST", f"{P}/lays", "beginLay", lay.begin_lay, 202, lay_out.JobOut),
    ("POST", f"{P}/lay/refresh", "refreshLay", lay.refresh_lay, 200, project_out.ProjectOut),
    ("GET", "/jobs/<int:job_id>", "readJob", lay.read_job, 200, lay_out.JobOut),
    ("POST", "/jobs/<int:job_id>/cancel", "cancelJob", lay.cancel_job, 200, lay_out.JobOut),
    ("GET", f"{P}/lay", "readLay", lay.read_lay, 200, lay_out.MaybeLayOut),
    ("POST", f"{P}/lay/choose", "chooseLay", lay.choose_lay, 200, project_out.ProjectOut),
    ("GET", f"{P}/lay/near", "nearPlace", hand.near_place, 200, lay_out.NearOut),
    ("GET", f"{P}/lay/light", "lightGround", hand.light_ground, 200, lay_out.LightOut),
    ("GET", f"{P}/lay/agreeing", "agreeingPlaces", hand.agreeing_places, 200, lay_out.AgreeingOut),
    ("POST", f"{P}/lays/<int:lay_id>/hand", "layByHand", hand.lay_by_hand, 200, lay_out.MaybeLayOut),
    ("POST", f"{P}/lays/<int:lay_id>/close", "closeUp", hand.close_up, 202, lay_out.JobOut),
    ("GET", f"{P}/lay/compare", "compareLays", hand.compare_lays, 200, lay_out.CompareOut),
    ("POST", f"{P}/lay/outside", "takeInLay", hand.take_in, 200, lay_out.MaybeLayOut),
    ("GET", f"{P}/lay.svg", "laySvg", lay.lay_svg, 200, SVG),
    ("GET", f"{P}/lay.json", "layJson", lay.lay_json, 200, LAY_JSON),
    ("GET", f"{P}/lay-problem.json", "layProblemJson", lay.lay_problem_json, 200, LAY_JSON),
    # match
    ("GET", f"{P}/match", "readMatch", match.read_match, 200, match_out.MatchOut),
    ("GET", f"{P}/seams/<int:seam_id>/preview", "previewSeam", match.preview_seam, 200, match_out.PreviewOut),
    ("GET", f"{P}/seams/<int:seam_id>/ways", "readSeamWays", match.read_ways, 200, match_out.SeamWaysOut),
    ("POST", f"{P}/seams", "addSeam", match.add_seam, 201, match_out.MatchOut),
    ("PUT", f"{P}/seams/order", "orderSeams", match.order_seams, 200, match_out.MatchOut),
    ("POST", f"{P}/seams/proposed", "takeProposed", match.take_proposed, 201, match_out.MatchOut),
    ("PATCH", "/seams/<int:seam_id>", "changeSeam", match.change_seam, 200, match_out.MatchOut),
    ("DELETE", "/seams/<int:seam_id>", "deleteSeam", match.delete_seam, 200, match_out.MatchOut),
    ("PUT", "/pieces/<int:piece_id>/corners", "setCorner", match.set_corner, 200, match_out.MatchOut),
    ("PUT", f"{P}/bars-wished", "wishBar", match.wish_bar, 200, match_out.MatchOut),
    # cut
    ("GET", f"{P}/cut", "readCut", cut.read_cut, 200, cut_out.CuttingOut),
    ("POST", f"{P}/cut", "beginCut", cut.begin_cut, 201, cut_out.CuttingOut),
    ("PUT", f"{P}/cut/before", "answerBefore", cut.answer_before, 200, cut_out.CuttingOut),
    ("POST", f"{P}/cut/deeds", "doAtTable", cut.do_at_table, 200, cut_out.CuttingOut),
    ("PUT", f"{P}/cut/at", "goToStep", cut.go_to_step, 200, cut_out.CuttingOut),
    ("PUT", f"{P}/cut/order", "reorderCut", cut.reorder_cut, 200, cut_out.CuttingOut),
    ("GET", f"{P}/cut/again", "readAgain", cut.read_again, 200, cut_out.AgainOut),
    ("POST", f"{P}/cut/again", "takeWay", cut.take_way, 201, cut_out.CuttingOut),
    ("GET", f"{P}/cut/left", "readLeft", cut.read_left, 200, cut_out.ClothLeftOut),
    ("POST", f"{P}/cut/left", "keepRemnant", cut.keep_remnant, 201, cut_out.ClothLeftOut),
    ("PUT", f"{P}/cut/scrap", "changeScrap", cut.change_scrap, 200, cut_out.ClothLeftOut),
    ("GET", f"{P}/cut/sheet.pdf", "sheetPdf", cut.sheet_pdf, 200, PDF),
    ("GET", f"{P}/cut/lay.pdf", "layPdf", cut.lay_pdf, 200, PDF),
    ("GET", f"{P}/cut/pieces.pdf", "piecesPdf", cut.pieces_pdf, 200, PDF),
    ("GET", f"{P}/cut/pieces.svg", "piecesSvg", cut.pieces_svg, 200, SVG),
    ("GET", f"{P}/cut/labels.pdf", "labelsPdf", cut.labels_pdf, 200, PDF),
    ("GET", f"{P}/cut/gauges.pdf", "gaugesPdf", cut.gauges_pdf, 200, PDF),
    ("GET", "/swatch-template.pdf", "swatchPdf", cut.swatch_pdf, 200, PDF),
    ("POST", "/true-size", "calibrate", cut.calibrate, 200, cut_out.CalibrationOut),
    ("POST", "/true-size/check", "checkSize", cut.check_size, 200, cut_out.SizeCheckOut),
    # devices on the home's network
    ("GET", "/pairing", "readPairing", pairing.read_pairing, 200, cut_out.PairingOut),
    ("POST", "/pairing/devices", "pairDevice", pairing.pair_device, 201, cut_out.PairedOut),
    (
        "DELETE",
        "/pairing/devices/<int:device_id>",
        "revokeDevice",
        pairing.revoke_device,
        200,
        cut_out.PairingOut,
    ),
    # log
    ("GET", f"{P}/log", "readLog", log.read_log, 200, log_out.LogOut),
    ("GET", f"{P}/outcomes", "readOutcomes", outcome.read_outcomes, 200, outcome_out.OutcomesOut),
    ("POST", f"{P}/outcomes", "keepOutcome", outcome.keep_outcome, 201, outcome_out.OutcomesOut),
    (
        "DELETE",
        f"{P}/outcomes/<int:outcome_id>",
        "strikeOutcome",
        outcome.strike_outcome,
        200,
        outcome_out.OutcomesOut,
    ),
    ("GET", f"{P}/why", "readWhy", outcome.read_why, 200, outcome_out.WhyOut),
    ("GET", f"{P}/came-out.ics", "reminderIcs", outcome.reminder_ics, 200, ICS),
    ("GET", "/teaches", "readTeaches", outcome.read_teaches, 200, outcome_out.TeachesOut),
    ("GET", "/log/lines", "readTimeline", timeline.read_timeline, 200, log_out.TimelineOut),
    ("GET", "/log.csv", "timelineCsv", timeline.timeline_csv, 200, LOG_CSV),
    ("POST", "/log/notes", "addNote", timeline.add_note, 201, log_out.ToldOut),
    ("GET", "/log/lines/<int:line_id>/photo", "readLinePhoto", timeline.read_line_photo, 200, JPEG),
    ("GET", "/log", "readHouseLog", log.read_house_log, 200, log_out.LogOut),
    ("GET", "/news", "readNews", log.read_news, 200, log_out.NewsOut),
    ("GET", "/undo", "readUndo", log.read_undo, 200, log_out.UndoOut),
    ("POST", "/undo", "undo", log.undo_last, 200, log_out.UndoOut),
    ("POST", "/redo", "redo", log.redo_last, 200, log_out.UndoOut),
    ("POST", "/changes/<int:change_id>/undo", "undoChange", log.undo_change, 200, log_out.UndoOut),
)


@cache
def addresses(described: bool) -> APIBlueprint:
    """All of them, ready to be registered. ``described``: with what they answer, for the document; that takes seconds,
    and serving does not need it."""
    api = APIBlueprint(
        "api",
        __name__,
        url_prefix="/api",
        abp_responses=dict.fromkeys(REFUSALS, ErrorOut),
        doc_ui=described,
    )
    for method, address, name, answer, status, model in ADDRESSES:
        add = getattr(api, method.lower())
        add(address, operation_id=name, responses={status: model})(answer)
    return api
