"""Every operation of the API, and one way to ask each of them that it answers."""

from __future__ import annotations

import base64
import json
from datetime import datetime
from typing import Any

from idle_selvage.api.document import document
from idle_selvage.api.door import Door
from idle_selvage.operations import pairing
from idle_selvage.store.copies import daily_copy

from ..conftest import Person, photo
from .cut.cutting import begun, deed, settle, try_ways

PHOTO = base64.b64encode(photo(40, 30)).decode()
#: A drawing of one piece, to be taken in.
TAKEN = base64.b64encode(
    b'<svg xmlns="http://www.w3.org/2000/svg" width="99mm" height="99mm" viewBox="0 0 99 99">'
    b'<rect id="square" width="99" height="99"/></svg>'
).decode()
DOCUMENT: dict[str, Any] = json.loads(document())
OPERATIONS = [(method, path, o) for path, all_ in DOCUMENT["paths"].items() for method, o in all_.items()]
#: what each operation is asked with, on a project that is ready to be laid
BODIES: dict[str, dict[str, Any]] = {
    "setAside": {"key": "The lay is out of date.", "why": "it is only looked at"},
    "changeSettings": {"system": "metric"},
    "readLength": {"text": "3 cm"},
    "addProject": {"name": "B"},
    "changeProject": {"note": "new"},
    "changeCloth": {"name": "Lawn"},
    "keepSwatch": {"graduation": "1 mm"},
    "drawOutline": {"stations": [{"along": 0, "left": 9, "right": 9}, {"along": 99, "left": 9, "right": 9}]},
    "addPiece": {"name": "P", "stations": [{"along": 0, "left": 9, "right": 9}, {"along": 99, "left": 9, "right": 9}]},
    "importPieces": {"svg": '<svg xmlns="http://www.w3.org/2000/svg"><rect width="99" height="99"/></svg>'},
    "lookInto": {"file": TAKEN, "file_name": "a.svg"},
    "keepTaken": {"file": TAKEN, "file_name": "a.svg", "pieces": [{"number": 0, "name": "Taken in"}]},
    "takeArchiveIn": {"cloths": "another"},
    "keepOutcome": {"kind": "fit", "grade": 4},
    "addNote": {"text": "soft", "project": 1},
    "changePiece": {"copies": 2},
    "readEase": {"longer": [{"piece_id": 1, "edge": 0}], "shorter": [{"piece_id": 2, "edge": 1}]},
    "gradePiece": {"sizes": ["36", "38"], "base": "36", "grades": [{"key": 1, "along": 0, "across": -5}]},
    "changePurchase": {"spare": "3 cm"},
    "changeLayWishes": {"lay_seconds": 2},
    "beginLay": {"seconds": 1},
    "chooseLay": {"lay_id": 1},
    "layByHand": {"do": "lock-all"},
    "closeUp": {"how": "anywhere", "seconds": 1},
    "takeInLay": {"text": ""},
    "changeAnyCloth": {"place": "Blue box"},
    "addCloth": {"name": "Lawn"},
    "keepPhoto": {"data": PHOTO},
    "addWash": {"how": "40 °C", "grade": 4},
    "useCloth": {"cloth_id": 1},
    "addUse": {"name": "Lining", "role": "lining"},
    "changeUse": {"role": "trim"},
    "keepRuns": {"runs": [{"what": "hem", "length": "52 cm", "times": 2}]},
    "changeCut": {"copies": 2, "shorter": "1 cm"},
    "addSwatch": {},
    "useSwatch": {"swatch_id": 1},
    "washSwatch": {},
    "chooseSchool": {"school": "soak"},
    "sendReading": {"value": 248.5},
    "changeHouse": {"washer_kg": "6"},
    "beginTrials": {"what": "extras"},
    "addOffer": {"name": "Linen, wide", "width": "150 cm", "price": "18"},
    "changeOffer": {"price": "17,50"},
    "chooseTogether": {"uses": [2]},
    "changeEnvelope": {"mine": "92 cm", "sizes": [{"name": "12", "body": "90 cm"}, {"name": "14", "body": "95 cm"}]},
    "changeStrips": {"edge": "80 cm", "depth": "12 cm"},
    "makeStripsPieces": {"what": "along"},
    "addItem": {"kind": "zip", "name": "Zip, 20 cm"},
    "haveItem": {"have": True},
    "addSeam": {
        "a": {"piece_id": 1, "begin": {"after": 1}, "end": {"after": 2}},
        "b": {"piece_id": 2, "begin": {"after": 2}, "end": {"after": 1}},
    },
    "changeSeam": {"name": "Side seam", "ease": "1 cm"},
    "orderSeams": {"seams": [1]},
    "takeProposed": {"which": []},
    "setCorner": {"key": 1, "corner": False},
    "wishBar": {"piece_id": 1, "way": "levels"},
    "answerBefore": {"key": "shears", "ticked": True},
    "doAtTable": {"round": 1, "key": "1·1", "kind": "cut"},
    "goToStep": {"round": 1, "key": "1·1"},
    "reorderCut": {"round": 1, "keys": []},
    "takeWay": {"way": "beside"},
    "keepRemnant": {"x": 0, "y": 0, "area": 0},
    "changeScrap": {"least": "12 cm"},
    "calibrate": {"wide": "10 cm", "high": "10 cm", "drawn": 400},
    "checkSize": {"meant": "20 cm", "measured": "20.1 cm"},
    "pairDevice": {"code": "", "name": "Tablet"},
    "changeTrue": {"now": {"offset": "12 mm", "side": "near"}, "edge": ["2 cm", "3 cm"]},
}
#: what is asked in the address
QUERIES = {
    "piecesFile": "?kind=dxf",
    "readWhy": "?complaint=twist",
    "readTrials": "?what=offers",
    "convertLength": "?length=1%203/8%20yd",
    "readWillItDo": "?cloth_id=1",
}
QUERIES |= {"nearPlace": "?lay_id=1&keys=1%C2%B71&x=10&y=10", "lightGround": "?lay_id=1&keys=1%C2%B71"}
QUERIES |= {"agreeingPlaces": "?lay_id=1&keys=1%C2%B71"}
QUERIES |= {"writeLength": "?mm=12.5"}
QUERIES |= dict.fromkeys(("undo", "redo", "undoChange"), "?project=1")


#: What is asked while one cuts.
AT_TABLE = ("beginCut", "doAtTable", "goToStep", "reorderCut", "takeWay", "keepRemnant", "readAgain", "readLeft")


def at_table(laid: Person, operation: str) -> None:
    """Cutting begun, and as far as an operation needs it."""
    laid.ask("PATCH", "/projects/1/cloth", in_hand="5 m")
    settle(laid)
    if operation == "beginCut":
        return
    steps = begun(laid)["steps"]
    if operation in ("takeWay", "keepRemnant", "readAgain", "readLeft"):
        deed(laid, steps[0])
    if operation in ("takeWay", "readAgain"):
        deed(laid, steps[0], "spoilt")
        try_ways(laid)


def filled(path: str) -> str:
    """An address with the numbers of things that are there."""
    for name, number in {
        "project": 1,
        "piece": 1,
        "job": 1,
        "task": 1,
        "wash": 1,
        "offer": 1,
        "test": 1,
        "lay": 1,
        "seam": 1,
        "device": 1,
    }.items():
        path = path.replace(f"{{{name}_id}}", str(number))
    path = path.replace("{item_id}", "use-1" if path.endswith("/have") else "own-1")
    # the main cloth stays; the third use is a trim beside it
    path = path.replace("{use_id}", "3")
    # the project's own cloth is in use, and the spare one can be put away; the first has the photo
    spare = path.endswith(("/cloths/{cloth_id}", "/cloths/{cloth_id}/restore"))
    return path.replace("{cloth_id}", "2" if spare else "1")


def prepared(laid: Person, path: str, operation: dict[str, Any]) -> tuple[str, Any]:
    """An operation's address, with what it asks, and its body, on data where it can be done."""
    address = filled(path)
    if operation["operationId"] == "addTest":
        # a reading is used up by being written down
        laid.ask("PATCH", "/projects/1/true", now={"offset": "1 cm", "side": "far"})
    if operation["operationId"] == "redo":
        laid.ask("POST", "/undo?project=1")
    if operation["operationId"] in AT_TABLE:
        at_table(laid, operation["operationId"])
    if operation["operationId"] == "takeArchiveIn":
        whole = laid.client.get("/api/projects/1/archive.zip", base_url="http://127.0.0.1").get_data()
        BODIES["takeArchiveIn"]["file"] = base64.b64encode(whole).decode()
    if operation["operationId"] == "strikeOutcome":
        kept = laid.ask("POST", "/projects/1/outcomes", 201, kind="fit", grade=4)["kept"]
        address = address.replace("{outcome_id}", str(kept[0]["id"]))
    if operation["operationId"] == "readLinePhoto":
        line = laid.ask("POST", "/log/notes", 201, text="a photo", photo=PHOTO)
        address = address.replace("{line_id}", str(line["id"]))
    if operation["operationId"] == "goBackTo":
        copy = daily_copy(laid.app.services.database.home, datetime(2026, 5, 1))
        BODIES["goBackTo"] = {"name": copy.name if copy is not None else "2026-05-01.sqlite3"}
    if operation["operationId"] == "revokeDevice":
        with laid.app.services.database.begin() as session:
            pairing.pair(session, "Tablet")
    if operation["operationId"] == "pairDevice":
        laid.app.services.door = Door(True, ("http://127.0.0.1/",))
        BODIES["pairDevice"]["code"] = laid.app.services.door.code
    if operation["operationId"] == "keepRemnant":
        first = laid.ask("GET", "/projects/1/cut/left")["remnants"][0]
        BODIES["keepRemnant"] = {name: first[name] for name in ("x", "y", "area")}
    last = laid.ask("GET", "/undo?project=1")["back"]
    address = address.replace("{change_id}", str(last["change"]) if last else "1")
    query = QUERIES.get(operation["operationId"], "")
    if operation["operationId"] == "takeInLay":
        made = laid.client.get("/api/projects/1/lay.json", base_url="http://127.0.0.1")
        BODIES["takeInLay"]["text"] = made.get_data(as_text=True)
    return address + query, BODIES.get(operation["operationId"])
