"""The kit: keep it, take it away and bring it in, search it."""

from flask import request
from flask_openapi3 import Tag

from just_plane.contract.http import (
    BaseRevision,
    KeptKitAnswer,
    KitFileQuery,
    KitUse,
    KitUses,
    Problem,
    RailStep,
    SaveKit,
    UnitsQuery,
)
from just_plane.contract.kit import Kit
from just_plane.contract.kit_file import read_kit, write_kit
from just_plane.contract.kit_table import read_table, write_table
from just_plane.contract.packing import PackingList, PackingQuery
from just_plane.contract.search import SearchAnswer, SearchAsked
from just_plane.planning.kit.check import check_kit, mm_per_turn, smallest_step_mm
from just_plane.planning.kit.packing import packing
from just_plane.planning.kit.search import search
from just_plane.planning.rig.kinds import LENS_KINDS
from just_plane.planning.words.numbers import Wording
from just_plane.shelf.starter import starter_shelf
from just_plane.store.kits import KIT_ID
from just_plane.store.shots import Asked
from just_plane.web.answers import answer, download, store
from just_plane.web.late import LateBlueprint

MOST_PACKED = 500
"""Shots of one list: a year of them, under one heading."""

api = LateBlueprint("kit", __name__, url_prefix="/api", abp_tags=[Tag(name="kit")], abp_responses={507: Problem})


@api.get("/shelf", responses={200: Kit}, operation_id="shelf")
def shelf():
    """Generic gear to pick from."""
    return answer(starter_shelf())


@api.get("/kit", responses={200: KeptKitAnswer}, operation_id="getKit")
def get_kit():
    """The kit as it is now."""
    return _kept(store().kit.now())


@api.put("/kit", responses={200: KeptKitAnswer, 409: Problem}, operation_id="saveKit")
def save_kit(body: SaveKit):
    """Keep a changed kit as its newest revision."""
    store().kit.now()
    return _kept(store().kit.save(KIT_ID, body.kit, body.base_revision, continues=body.continues))


@api.post("/kit/undo", responses={200: KeptKitAnswer, 409: Problem}, operation_id="undoKit")
def undo_kit(body: BaseRevision):
    """Go back one change."""
    store().kit.now()
    return _kept(store().kit.undo(KIT_ID, body.base_revision))


@api.post("/kit/redo", responses={200: KeptKitAnswer, 409: Problem}, operation_id="redoKit")
def redo_kit(body: BaseRevision):
    """Go forward one change."""
    store().kit.now()
    return _kept(store().kit.redo(KIT_ID, body.base_revision))


@api.get("/kit/file", operation_id="getKitFile")
def get_kit_file():
    """The kit file, to save."""
    return download(write_kit(store().kit.now().body), "kit.json", "application/json")


@api.get("/kit/table", operation_id="getKitTable")
def get_kit_table():
    """The kit as a table, to save."""
    return download(write_table(store().kit.now().body), "kit.csv", "text/csv")


@api.post("/kit/from-file", responses={200: KeptKitAnswer, 409: Problem}, operation_id="addKitFile")
def add_kit_file(query: KitFileQuery):
    """Put the pieces of a kit file or a table, sent as the body, into the kit."""
    content = request.get_data()
    brought = read_kit(content) if content.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"{") else read_table(content)
    kept = store().kit.now()
    if query.mode == "add":
        new = {piece.gear.kit_id for piece in brought.pieces}
        pieces = [piece for piece in kept.body.pieces if piece.gear.kit_id not in new] + brought.pieces
        measured = {tuple(rig.rig): rig for rig in (*kept.body.measured_rigs, *brought.measured_rigs)}.values()
        brought = brought.model_copy(update={"pieces": pieces, "measured_rigs": list(measured)})
    brought = Kit.model_validate(brought.model_dump())  # together they may be more than a kit may hold
    return _kept(store().kit.save(KIT_ID, brought, query.base_revision))


@api.get("/kit/uses", responses={200: KitUses}, operation_id="getKitUses")
def get_kit_uses():
    """Which shots hold a copy of which piece."""
    uses: dict[str, list[str]] = {}
    for kept in store().shots.list():
        shot = kept.body
        ids = {placed.gear.kit_id for placed in (*shot.rig, *shot.on_set)} | {shot.body.kit_id, shot.stack.rail_kit_id}
        for kit_id in ids - {None}:
            uses.setdefault(kit_id, []).append(shot.name)
    return answer(KitUses(uses=[KitUse(kit_id=kit_id, shots=shots) for kit_id, shots in sorted(uses.items())]))


@api.get("/packing", responses={200: PackingList}, operation_id="packShots")
def pack_shots(query: PackingQuery):
    """The gear of the shots under a heading, or of all, as one list to pack."""
    found = store().shots.found("mm", "", MOST_PACKED, Asked(heading=query.heading, sort="hold"))
    return answer(packing(query.heading, [each.shot for each in found if each.shot is not None]))


@api.post("/search", responses={200: SearchAnswer}, operation_id="searchKit")
def search_kit(query: UnitsQuery, body: SearchAsked):
    """What of the kit gets a frame; of generic gear, as long as the kit holds no lens."""
    kit = store().kit.now().body
    if any(piece.gear.kind in LENS_KINDS for piece in kit.pieces):
        return answer(search(kit, body, Wording(query.units)))
    return answer(search(starter_shelf(), body, Wording(query.units)).model_copy(update={"generic": True}))


def _kept(kept):
    return answer(
        KeptKitAnswer(
            revision=kept.revision,
            saved_at=kept.saved_at,
            can_undo=kept.can_undo,
            can_redo=kept.can_redo,
            kit=kept.body,
            findings=check_kit(kept.body),
            rails=[
                RailStep(
                    kit_id=piece.gear.kit_id,
                    smallest_step_mm=smallest_step_mm(piece.gear),
                    mm_per_turn=mm_per_turn(piece.gear),
                )
                for piece in kept.body.pieces
                if piece.gear.kind == "rail"
            ],
        )
    )
