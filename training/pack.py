"""Packs taught weights for the product: two ONNX models in parts that plain git carries, the pieces, and their card."""

import argparse
import hashlib
import json
from pathlib import Path

import numpy as np
import torch

from encoder import LONGEST_READ, Base, encode, load_base
from graph import write_graphs
from measure import NEVER_LEARNED, read_texts

MOST_BYTES = 4_000_000
VIEW_WIDTH = 96
"""Numbers that are kept of the state of a word."""
VIEWED_TEXTS = 1200
REFERENCE = (
    "I would like two lavender, please.",
    "wat time do yuo shut?",
    "",
    "🌱🌱 ¿dónde está mi pedido? \u0007",
    "a",
    " ".join(f"word{number}" for number in range(400)),
    "My order never came, and it's my mother's birthday on Friday.",
    "the close was beautiful in spring",
)
"""Texts whose vectors are kept as the weights give them before they are rounded, to check what runs them by."""


def digest(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()


def load_taught(base: Base, files: list[Path], mix: float) -> None:
    """Puts taught weights into a base. @param mix share of the taught weights; those of several files are averaged"""
    runs = [torch.load(file, weights_only=True) for file in files]
    with torch.no_grad():
        for name, weight in base.encoder.state_dict().items():
            taught = sum(run["weights"][name] for run in runs) / len(runs)
            if name == "words.weight":
                rows = runs[0]["pieces"]
                weight[rows] = (1 - mix) * weight[rows] + mix * taught
            else:
                weight.copy_((1 - mix) * weight + mix * taught)
    base.encoder.eval()


def states_at(base: Base, text: str, view: int) -> torch.Tensor:
    """States of a text's pieces after some layers, without those of its start and end."""
    ids = torch.tensor([base.pieces(text, LONGEST_READ)])
    allowed = torch.ones_like(ids, dtype=torch.bool)[:, None, None, :]
    encoder = base.encoder
    states = encoder.norm(encoder.words(ids) + encoder.places.weight[: ids.shape[1]])
    for layer in encoder.layers[:view]:
        states = layer(states, allowed, 0.0)
    return states[0, 1:-1]


def eye_of(base: Base, texts: list[str], view: int) -> tuple[np.ndarray, np.ndarray]:
    """How words are looked at: the directions in which their states differ most, the wider ones held back.

    Principal components, each divided by the square root of its spread (half way to whitening).
    """
    with torch.no_grad():
        states = torch.cat([states_at(base, text, view) for text in texts]).numpy()
    middle = states.mean(0)
    _, spread, directions = np.linalg.svd(states - middle, full_matrices=False)
    scale = np.sqrt(spread[:VIEW_WIDTH] / np.sqrt(len(states)))
    return middle, directions[:VIEW_WIDTH].T / scale


def write_parts(out: Path, name: str, whole: bytes) -> dict:
    parts = []
    for number, start in enumerate(range(0, len(whole), MOST_BYTES), 1):
        part = whole[start : start + MOST_BYTES]
        file = f"{name}-{number:02d}.part"
        (out / file).write_bytes(part)
        parts.append({"name": file, "sha256": digest(part)})
    return {"sha256": digest(whole), "parts": parts}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--base", type=Path, required=True)
    parser.add_argument("--taught", type=Path, nargs="+", required=True, help="what train.py wrote; several are averaged")
    parser.add_argument("--mix", type=float, required=True, help="share of the taught weights")
    parser.add_argument("--texts", type=Path, required=True, help="what texts.ts wrote")
    parser.add_argument("--name", default="e12-384")
    parser.add_argument("--kind", default="eight")
    parser.add_argument("--view", type=int, default=7, help="the layer that words are looked at in")
    parser.add_argument("--out", type=Path, required=True)
    options = parser.parse_args()
    base = load_base(options.base)
    load_taught(base, options.taught, options.mix)
    trades, _ = read_texts(options.texts)
    texts = [line.text for trade in trades if trade.name not in NEVER_LEARNED for line in trade.lines]
    eye = eye_of(base, texts[:: len(texts) // VIEWED_TEXTS], options.view)
    lower, upper = (
        model.SerializeToString(deterministic=True) for model in write_graphs(base.encoder, options.kind, options.view, eye)
    )
    options.out.mkdir(parents=True, exist_ok=True)
    for old in options.out.glob("*.part"):
        old.unlink()
    numbers = base.tokenizer.get_vocab()
    vocabulary = "".join(f"{piece}\n" for piece in sorted(numbers, key=numbers.__getitem__)).encode()
    (options.out / "pieces.txt").write_bytes(vocabulary)
    manifest = {
        "version": f"{options.name}-{digest(lower + upper + vocabulary)[:10]}",
        "pieces": {"name": "pieces.txt", "sha256": digest(vocabulary)},
        "lower": write_parts(options.out, "lower", lower),
        "upper": write_parts(options.out, "upper", upper),
    }
    (options.out / "encoder.json").write_text(json.dumps(manifest, indent=2) + "\n")
    with torch.no_grad():
        reference = [
            {
                "text": text,
                "pieces": base.pieces(text, LONGEST_READ),
                "vector": [round(value, 6) for value in encode(base.encoder, [base.pieces(text, LONGEST_READ)])[0].tolist()],
                "views": [
                    [round(value, 4) for value in view]
                    for view in ((states_at(base, text, options.view).numpy() - eye[0]) @ eye[1])[:3].tolist()
                ],
            }
            for text in REFERENCE
        ]
    (options.out / "reference.json").write_text(json.dumps(reference, ensure_ascii=False) + "\n")
    print(manifest["version"], len(lower) + len(upper))


if __name__ == "__main__":
    main()
