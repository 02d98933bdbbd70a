"""Archives of the demo, whole and edited."""

import hashlib
import io
import json
import zipfile

from apps.exchange.sending import send_job, send_shop
from apps.exchange.taking import take_in
from apps.jobs.models import Job
from spindle.formats.archive import MANIFEST, ArchiveReader


def sent(job=None):
    out = io.BytesIO()
    send_shop(out) if job is None else send_job(out, Job.objects.get(tag=job))
    return out


def members(archive):
    with zipfile.ZipFile(archive) as found:
        return {name: found.read(name) for name in found.namelist() if name != MANIFEST}


def take(archive):
    return take_in(ArchiveReader(archive))


def edited(archive, table, edit):
    """The same archive with the first row of a table edited, vouched for by its manifest."""
    with zipfile.ZipFile(archive) as old:
        found = {name: old.read(name) for name in old.namelist()}
    first, *rest = found[f"{table}.jsonl"].splitlines()
    row = json.loads(first)
    edit(row)
    found[f"{table}.jsonl"] = b"\n".join([json.dumps(row).encode(), *rest]) + b"\n"
    told = json.loads(found[MANIFEST])
    told["members"][f"{table}.jsonl"] |= {"sha256": hashlib.sha256(found[f"{table}.jsonl"]).hexdigest(), "size": len(found[f"{table}.jsonl"])}
    found[MANIFEST] = json.dumps(told).encode()
    with zipfile.ZipFile(out := io.BytesIO(), "w") as new:
        for name, content in found.items():
            new.writestr(name, content)
    return out
