"""Writes an encoder in parts that plain git carries, with the sum of each."""

import hashlib
import json
from pathlib import Path

MOST_BYTES = 4_000_000


def digest(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()


def _write_parts(out: Path, name: str, whole: bytes) -> dict:
    parts = []
    for number, start in enumerate(range(0, len(whole), MOST_BYTES), 1):
        part = whole[start : start + MOST_BYTES]
        file = f"{name}-{number:02d}.part"
        (out / file).write_bytes(part)
        parts.append({"name": file, "sha256": digest(part)})
    return {"sha256": digest(whole), "parts": parts}


def write_encoder(out: Path, name: str, vocabulary: bytes, halves) -> str:
    """@param halves the lower and the upper graph. Gives the version, which the program must name."""
    lower, upper = (half.SerializeToString(deterministic=True) for half in halves)
    out.mkdir(parents=True, exist_ok=True)
    for old in out.glob("*.part"):
        old.unlink()
    (out / "pieces.txt").write_bytes(vocabulary)
    manifest = {
        "version": f"{name}-{digest(lower + upper + vocabulary)[:10]}",
        "pieces": {"name": "pieces.txt", "sha256": digest(vocabulary)},
        "lower": _write_parts(out, "lower", lower),
        "upper": _write_parts(out, "upper", upper),
    }
    (out / "encoder.json").write_text(json.dumps(manifest, indent=2) + "\n")
    return manifest["version"]
