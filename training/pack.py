"""Packs taught weights for the product: two ONNX models in parts that plain git carries, the pieces, and their card."""

import argparse
import json
from pathlib import Path

import numpy as np
import torch

from encoder import LONGEST_READ, Base, encode, load_base
from graph import write_graphs
from measure import NEVER_LEARNED, read_texts
from parts import write_encoder
from quantise import quantised, readings_of

VIEW_WIDTH = 96
"""Numbers that are kept of the state of a word."""
VIEWED_TEXTS = 1200
READ_TEXTS = 400
"""Texts that tell how far the channels of products reach."""
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


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--base", type=Path, required=True)
    parser.add_argument("--taught", type=Path, nargs="+", required=True, help="what train.py wrote; several are averaged")
    parser.add_argument("--mix", type=float, required=True, help="share of the taught weights")
    parser.add_argument("--texts", type=Path, required=True, help="what texts.ts wrote")
    parser.add_argument("--name", default="e12-384")
    parser.add_argument("--view", type=int, default=7, help="the layer that words are looked at in")
    parser.add_argument("--out", type=Path, required=True)
    options = parser.parse_args()
    base = load_base(options.base)
    load_taught(base, options.taught, options.mix)
    trades, _ = read_texts(options.texts)
    texts = [line.text for trade in trades if trade.name not in NEVER_LEARNED for line in trade.lines]
    eye = eye_of(base, texts[:: len(texts) // VIEWED_TEXTS], options.view)
    halves = write_graphs(base.encoder, options.view, eye)
    readings = readings_of(*halves, [base.pieces(text, LONGEST_READ) for text in texts[:: len(texts) // READ_TEXTS]])
    numbers = base.tokenizer.get_vocab()
    vocabulary = "".join(f"{piece}\n" for piece in sorted(numbers, key=numbers.__getitem__)).encode()
    version = write_encoder(options.out, options.name, vocabulary, [quantised(half, readings) for half in halves])
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
    print(version)


if __name__ == "__main__":
    main()
