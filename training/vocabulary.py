"""Chooses the pieces that are kept of a multilingual vocabulary: those that seven languages are written with.

The words of each language come from the word lists of Debian: wamerican, wbritish, wspanish, wfrench, wngerman,
witalian, wportuguese and wdutch.
"""

import argparse
import json
import unicodedata
from pathlib import Path

from encoder import load_base
from measure import read_texts

LISTS = ("american-english", "british-english", "spanish", "french", "ngerman", "italian", "portuguese", "dutch")
LONGEST_NUMBER = 4
SPACE = "\u2581"


def is_latin(letter: str) -> bool:
    return unicodedata.name(letter, "").startswith("LATIN")


def is_kept_anyway(piece: str) -> bool:
    """Numbers and signs, single letters of these languages, and the special pieces."""
    own = piece.removeprefix(SPACE)
    if piece.startswith("<") and piece.endswith(">"):
        return piece in ("<s>", "<pad>", "</s>", "<unk>")
    if len(own) <= 1:
        return own == "" or is_latin(own) or ord(own) < 0x2200 and not own.isalpha()
    return len(own) <= LONGEST_NUMBER and all(ord(sign) < 0x2200 and not sign.isalpha() for sign in own)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--base", type=Path, required=True)
    parser.add_argument("--texts", type=Path, required=True)
    parser.add_argument("--words", type=Path, default=Path("/usr/share/dict"))
    parser.add_argument("--out", type=Path, required=True)
    options = parser.parse_args()
    tokenizer = load_base(options.base).tokenizer
    kept = {number for piece, number in tokenizer.get_vocab().items() if is_kept_anyway(piece)}
    print(len(kept), "numbers, signs and letters")
    for name in LISTS:
        words = (options.words / name).read_text().split()
        for start in range(0, len(words), 20_000):
            some = words[start : start + 20_000]
            for read in tokenizer.encode_batch(some + [word.capitalize() for word in some], add_special_tokens=False):
                kept.update(read.ids)
        print(len(kept), "with", name)
    trades, background = read_texts(options.texts)
    texts = [line.text for trade in trades for line in trade.lines] + [line.text for line in background]
    for read in tokenizer.encode_batch(texts, add_special_tokens=False):
        kept.update(read.ids)
    print(len(kept), "with the messages")
    options.out.write_text(json.dumps(sorted(kept)))


if __name__ == "__main__":
    main()
