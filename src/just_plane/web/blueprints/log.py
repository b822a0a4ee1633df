"""The notebook: every run becomes an entry by itself; what came out is added when it is known."""

import tempfile
import zipfile
from contextlib import suppress
from pathlib import Path

from flask import Response, send_file
from flask_openapi3 import Tag

from just_plane.contract.check import CheckReport
from just_plane.contract.http import KeptShotAnswer, Problem, ShotPath
from just_plane.contract.log import (
    EntryPath,
    EntryPictureQuery,
    LogDone,
    LogEntry,
    LogFileQuery,
    LogList,
    LogNote,
    LogOut,
    LogQuery,
    LogSet,
    NoteAsked,
    Reminders,
)
from just_plane.contract.shot_file import write_shot
from just_plane.drive.journal import stand_of
from just_plane.frames.finishing import REPORT
from just_plane.frames.previews import frame_preview
from just_plane.jobs.requests import request_of, result_file
from just_plane.pictures.frames import frame_facts
from just_plane.pictures.reading import PictureError
from just_plane.planning.log.alike import holds, reminders, trouble_words
from just_plane.planning.log.entry import done_of, out_of, set_of
from just_plane.planning.log.table import log_csv
from just_plane.planning.plan import plan_shot
from just_plane.runs.table import steps_csv
from just_plane.store.errors import NotFoundError, StoreError
from just_plane.web.answers import answer, download, store
from just_plane.web.kept import kept_shot
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "log", __name__, url_prefix="/api", abp_tags=[Tag(name="log")], abp_responses={404: Problem, 507: Problem}
)
MOST_NEW = 50
LATELY = 20
"""Newest entries whose runs are looked at again: frames may have been added since."""


@api.get("/log", responses={200: LogList}, operation_id="listLog")
def list_log(query: LogQuery):
    """The notebook, the newest first."""
    entries = _entries()
    found = [
        entry
        for entry in entries
        if holds(entry, query.words, query.day) and (not query.shot or entry.shot_id == query.shot)
    ]
    return answer(LogList(entries=found, words=trouble_words(entries)))


@api.put("/log/<entry_id>/note", responses={200: LogEntry, 409: Problem}, operation_id="noteLog")
def note_log(path: EntryPath, body: NoteAsked):
    """Write in an entry."""
    return answer(_told(store().log.note(path.entry_id, body.note.model_dump_json(), body.note_number)))


@api.post("/log/<entry_id>/as-then", responses={201: KeptShotAnswer}, operation_id="asThen")
def as_then(path: EntryPath):
    """A new shot, set as it was then."""
    entry = store().log.get(path.entry_id)
    shot = store().shots.at(entry.document_id, entry.revision)
    return kept_shot(store().shots.add(shot.model_copy(update={"name": f"{shot.name}, again"[:120]})), 201)


@api.get("/log/<entry_id>/picture", operation_id="pictureOfLog")
def picture_of_log(path: EntryPath, query: EntryPictureQuery):
    """What came of it: a proof where one was made, else its first frame."""
    entry = _told(store().log.get(path.entry_id))
    if entry.out is not None and entry.out.proofs:
        try:
            job = store().jobs.get(entry.out.job_id)
            content = result_file(store().jobs, job, f"proof-{entry.out.proofs[0]}.jpg").read_bytes()
            return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=60"})
        except (OSError, NotFoundError):
            pass
    if entry.done.folder is None or entry.done.first_file is None:
        raise NotFoundError("There is no picture of this entry.", "Runs with a folder of frames have one.")
    try:
        content = frame_preview(frame_facts(Path(entry.done.folder) / entry.done.first_file), None, query.width)
    except (PictureError, OSError) as error:
        raise NotFoundError("Its frames are not there any more.", "The entry stays as it was written.") from error
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=60"})


@api.get("/log/<entry_id>/folder", operation_id="folderOfLog")
def folder_of_log(path: EntryPath):
    """One entry as a folder, zipped: what was written, the shot and the run as they were, what was found, pictures."""
    kept = store().log.get(path.entry_id)
    entry = _told(kept)
    content = tempfile.TemporaryFile()  # noqa: SIM115 (sent, and gone when it is closed)
    with zipfile.ZipFile(content, "w", zipfile.ZIP_DEFLATED) as folder:
        for name, text in _written(kept, entry):
            folder.writestr(name, text)
        for name, file in _made(entry):
            folder.write(file, name, zipfile.ZIP_STORED)
    content.seek(0)
    name = f"{entry.made_at[:10]} {entry.set.shot_name}.zip"
    return send_file(content, "application/zip", as_attachment=True, download_name=name)


def _written(kept, entry):
    """Names and texts of an entry's own files."""
    yield "entry.json", entry.model_dump_json(indent=1)
    with suppress(StoreError):
        yield "shot.json", write_shot(store().shots.at(kept.document_id, kept.revision))
    if kept.run_id is not None:
        run = store().runs.get(kept.run_id)
        yield "frames.csv", steps_csv(stand_of(run))


def _made(entry):
    """Names and paths of what the check made, as far as it is still there; else the first frame as it came."""
    if entry.out is not None:
        with suppress(NotFoundError):
            job = store().jobs.get(entry.out.job_id)
            proofs = [f"proof-{method}.jpg" for method in entry.out.proofs]
            there = [(name, result_file(store().jobs, job, name)) for name in (REPORT, *proofs)]
            yield from ((name, file) for name, file in there if file.exists())
    if entry.done.folder is not None and entry.done.first_file is not None:
        first = Path(entry.done.folder) / entry.done.first_file
        if first.is_file():
            yield f"frames/{first.name}", first


@api.get("/log/file", operation_id="fileOfLog")
def file_of_log(query: LogFileQuery):
    """The notebook to take away."""
    entries = _entries()
    if query.as_ == "json":
        text = LogList(entries=entries, words=trouble_words(entries)).model_dump_json(indent=1)
        return download(text, "notebook.json", "application/json")
    return download(log_csv(entries), "notebook.csv", "text/csv")


@api.get("/shots/<shot_id>/reminders", responses={200: Reminders}, operation_id="remindersOfShot")
def reminders_of_shot(path: ShotPath):
    """Lines for next time, from entries that are like this shot."""
    shot = store().shots.get(path.shot_id).body
    reach = plan_shot(shot).reach
    return answer(Reminders(reminders=reminders(_entries(), shot, reach.magnification if reach else None)))


def _entries():
    """All entries; runs that are new since, and what came out since, are written in first."""
    for run in store().runs.without_entry(MOST_NEW):
        try:
            shot = store().shots.at(run.document_id, run.revision)
            stand = stand_of(run)
            last = run.events[-1][0] if run.events else None
            was = set_of(shot, stand.plan)
            store().log.add(run, was.model_dump_json(), done_of(stand, run.started_at, last).model_dump_json())
        except (StoreError, ValueError):
            continue
    return [_told(entry, lately=index < LATELY) for index, entry in enumerate(store().log.list())]


def _told(entry, *, lately=True):
    done = LogDone.model_validate_json(entry.done_json)
    if entry.run_id is not None and (lately or done.state in ("running", "paused")):
        run = store().runs.get(entry.run_id)
        now = done_of(stand_of(run), run.started_at, run.events[-1][0] if run.events else None)
        if now != done:
            done = now
            store().log.set_done(entry.entry_id, done.model_dump_json())
    out = LogOut.model_validate_json(entry.out_json) if entry.out_json else None
    newer = _came_out(entry, done, out)
    if newer is not None:
        out = newer
        store().log.set_out(entry.entry_id, out.model_dump_json())
    return LogEntry(
        entry_id=entry.entry_id,
        shot_id=entry.document_id,
        run_id=entry.run_id,
        set=LogSet.model_validate_json(entry.set_json),
        done=done,
        out=out,
        note=LogNote.model_validate_json(entry.note_json),
        note_number=entry.note_number,
        made_at=entry.made_at,
    )


def _came_out(entry, done, known):
    """What the last check of its folder since it began found, where that is new; None where there is nothing new."""
    if done.folder is None:
        return None
    for job in store().jobs.of_document(entry.document_id):
        if job.asked_at < entry.made_at:
            return None  # of the frames of a run before it, which came into the same folder
        if job.kind != "check" or job.state != "done" or request_of(job)["folder"] != done.folder:
            continue
        if known is not None and known.job_id == job.job_id:
            return None
        try:
            report = CheckReport.model_validate_json(result_file(store().jobs, job, REPORT).read_bytes())
        except OSError:
            continue
        return out_of(job.job_id, report)
    return None
