"""The sentence encoder as it is taught: a transformer of the BERT kind, its pieces, and the bases it can begin from."""

import json
import math
import struct
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import torch
from safetensors.torch import load_file
from tokenizers import Regex, Tokenizer, models, normalizers, pre_tokenizers
from torch import nn
from torch.nn import functional

LONGEST = 56
"""Pieces of a text that training reads; those that mark its start and end count."""
LONGEST_READ = 128
"""Pieces of a text that the product reads."""


@dataclass
class Shape:
    pieces: int
    width: int
    layers: int
    heads: int
    inner: int
    places: int


class Layer(nn.Module):
    """Attention and a feed-forward part, each followed by a norm (post-normalised; Devlin et al., 2019)."""

    def __init__(self, shape: Shape):
        super().__init__()
        self.heads = shape.heads
        self.query_key_value = nn.Linear(shape.width, 3 * shape.width)
        self.output = nn.Linear(shape.width, shape.width)
        self.attention_norm = nn.LayerNorm(shape.width, eps=1e-12)
        self.expand = nn.Linear(shape.width, shape.inner)
        self.contract = nn.Linear(shape.inner, shape.width)
        self.forward_norm = nn.LayerNorm(shape.width, eps=1e-12)

    def forward(self, states, mask, dropout):
        batch, length, width = states.shape
        parts = self.query_key_value(states).view(batch, length, 3, self.heads, width // self.heads)
        query, key, value = parts.permute(2, 0, 3, 1, 4)
        mixed = functional.scaled_dot_product_attention(query, key, value, attn_mask=mask, dropout_p=dropout)
        mixed = self.output(mixed.transpose(1, 2).reshape(batch, length, width))
        states = self.attention_norm(states + functional.dropout(mixed, dropout, self.training))
        wide = functional.gelu(self.expand(states))
        return self.forward_norm(states + functional.dropout(self.contract(wide), dropout, self.training))


class Encoder(nn.Module):
    """Turns pieces into states, and states into one unit vector a text: their mean, of length one."""

    def __init__(self, shape: Shape):
        super().__init__()
        self.shape = shape
        self.words = nn.Embedding(shape.pieces, shape.width)
        self.places = nn.Embedding(shape.places, shape.width)
        self.norm = nn.LayerNorm(shape.width, eps=1e-12)
        self.layers = nn.ModuleList(Layer(shape) for _ in range(shape.layers))

    def states(self, ids, mask, dropout=0.0):
        length = ids.shape[1]
        states = self.norm(self.words(ids) + self.places.weight[:length])
        states = functional.dropout(states, dropout, self.training)
        allowed = mask[:, None, None, :]
        for layer in self.layers:
            states = layer(states, allowed, dropout if self.training else 0.0)
        return states

    def forward(self, ids, mask, dropout=0.0):
        states = self.states(ids, mask, dropout)
        share = mask.unsqueeze(-1).to(states.dtype)
        return functional.normalize((states * share).sum(1) / share.sum(1), dim=-1)


@dataclass
class Base:
    """A base with its pieces."""

    encoder: Encoder
    tokenizer: Tokenizer
    start: int
    end: int
    kept: dict[int, int] | None = None
    """New numbers of pieces, where the table of words was cut to some of them."""

    def pieces(self, text: str, longest: int = LONGEST) -> list[int]:
        ids = self.tokenizer.encode(text, add_special_tokens=False).ids
        whole = [self.start, *ids[: longest - 2], self.end]
        return whole if self.kept is None else [self.kept[piece] for piece in whole]

    def cut_to(self, texts: list[str]) -> list[int]:
        """Keeps the pieces of some texts alone: what is never read learns nothing, and a small table is quicker.

        @returns the kept pieces, by their numbers before
        """
        used = sorted({piece for text in texts for piece in self.pieces(text, 4096)})
        self.kept = {piece: at for at, piece in enumerate(used)}
        table = self.encoder.words.weight.detach()[used].clone()
        self.encoder.words = nn.Embedding.from_pretrained(table, freeze=False)
        return used


def encode(encoder: Encoder, pieces: list[list[int]], dropout: float = 0.0, batch: int = 48) -> torch.Tensor:
    """One vector a text, in their order. Texts of like length go together, so that little is padded."""
    order = sorted(range(len(pieces)), key=lambda at: len(pieces[at]))
    vectors: list[torch.Tensor] = []
    for start in range(0, len(order), batch):
        chosen = [pieces[at] for at in order[start : start + batch]]
        length = max(map(len, chosen))
        ids = torch.zeros(len(chosen), length, dtype=torch.long)
        mask = torch.zeros(len(chosen), length, dtype=torch.bool)
        for row, own in enumerate(chosen):
            ids[row, : len(own)] = torch.tensor(own)
            mask[row, : len(own)] = True
        vectors.append(encoder(ids, mask, dropout))
    back = torch.empty(len(order), dtype=torch.long)
    back[torch.tensor(order)] = torch.arange(len(order))
    return torch.cat(vectors)[back]


def _fill(encoder: Encoder, get, layer_names) -> None:
    """Fills the weights. `get` gives a tensor by name; `layer_names` those of one layer."""
    with torch.no_grad():
        for number, layer in enumerate(encoder.layers):
            for part, names in layer_names(number).items():
                module = getattr(layer, part)
                module.weight.copy_(torch.cat([get(name + names["weight"]) for name in names["from"]]))
                module.bias.copy_(torch.cat([get(name + names["bias"]) for name in names["from"]]))


def load_safetensors(folder: Path) -> Base:
    """A base kept as `config.json`, `model.safetensors` and `tokenizer.json`."""
    config = json.loads((folder / "config.json").read_text())
    weights = load_file(folder / "model.safetensors")
    weights = {name.removeprefix("bert."): weight for name, weight in weights.items()}
    shape = Shape(
        pieces=config["vocab_size"],
        width=config["hidden_size"],
        layers=config["num_hidden_layers"],
        heads=config["num_attention_heads"],
        inner=config["intermediate_size"],
        places=config["max_position_embeddings"],
    )
    encoder = Encoder(shape)

    def names(number: int):
        at = f"encoder.layer.{number}."
        part = lambda *own: {"from": [at + name for name in own], "weight": ".weight", "bias": ".bias"}
        return {
            "query_key_value": part("attention.self.query", "attention.self.key", "attention.self.value"),
            "output": part("attention.output.dense"),
            "attention_norm": part("attention.output.LayerNorm"),
            "expand": part("intermediate.dense"),
            "contract": part("output.dense"),
            "forward_norm": part("output.LayerNorm"),
        }

    _fill(encoder, weights.__getitem__, names)
    with torch.no_grad():
        encoder.words.weight.copy_(weights["embeddings.word_embeddings.weight"])
        types = weights["embeddings.token_type_embeddings.weight"][0]
        encoder.places.weight.copy_(weights["embeddings.position_embeddings.weight"] + types)
        encoder.norm.weight.copy_(weights["embeddings.LayerNorm.weight"])
        encoder.norm.bias.copy_(weights["embeddings.LayerNorm.bias"])
    tokenizer = Tokenizer.from_file(str(folder / "tokenizer.json"))
    tokenizer.no_truncation()
    tokenizer.no_padding()
    return Base(encoder, tokenizer, tokenizer.token_to_id("[CLS]"), tokenizer.token_to_id("[SEP]"))


class _Reader:
    def __init__(self, data: bytes):
        self.data, self.at = data, 0

    def take(self, form: str):
        values = struct.unpack_from("<" + form, self.data, self.at)
        self.at += struct.calcsize("<" + form)
        return values[0] if len(values) == 1 else values


def _four_bits(data: bytes, at: int, count: int, columns: int) -> torch.Tensor:
    """Weights in blocks of 32: a 16-bit scale, then sixteen bytes of two numbers each, the low halves first."""
    blocks = np.frombuffer(data, dtype=np.uint8, count=count // 32 * 18, offset=at).reshape(-1, 18)
    scale = blocks[:, :2].copy().view(np.float16).astype(np.float32)
    low, high = (blocks[:, 2:] & 15).astype(np.float32) - 8, (blocks[:, 2:] >> 4).astype(np.float32) - 8
    return torch.from_numpy(np.concatenate([low, high], axis=1) * scale).reshape(-1, columns)


def _unigram(pieces: list[tuple[str, float]], unknown: int) -> Tokenizer:
    """Cuts texts into the likeliest pieces (a unigram language model; Kudo, 2018)."""
    tokenizer = Tokenizer(models.Unigram(pieces, unk_id=unknown))
    tokenizer.normalizer = normalizers.Sequence(
        [normalizers.NFKC(), normalizers.Replace(Regex(r"\s+"), " "), normalizers.Strip()]
    )
    tokenizer.pre_tokenizer = pre_tokenizers.Metaspace(prepend_scheme="always")
    return tokenizer


def load_four_bit(file: Path) -> Base:
    """A multilingual base kept in one file of four-bit weights, with its vocabulary of pieces and their scores."""
    data = file.read_bytes()
    reader = _Reader(data)
    if reader.take("4s") != b"E5S1":
        raise ValueError(f"{file} is no file of four-bit weights.")
    reader.take("I")
    width, layers, heads, inner, pieces, places, _types = (reader.take("i") for _ in range(7))
    reader.take("f"), reader.take("i")
    count, start, end, _pad, unknown = (reader.take("i") for _ in range(5))
    length = reader.take("Q")
    offsets = np.frombuffer(data, "<u4", count + 1, reader.at)
    reader.at += 4 * (count + 1)
    scores = np.frombuffer(data, "<f4", count, reader.at)
    reader.at += 4 * count
    blob = data[reader.at : reader.at + length]
    reader.at += length
    reader.take("i")
    skipped = reader.take("I")
    reader.at += skipped
    tensors = {}
    for _ in range(reader.take("i")):
        name = reader.take(f"{reader.take('H')}s").decode()
        kind, size, at, _bytes = reader.take("BIQQ")
        tensors[name] = (kind, size, at)

    def get(name: str) -> torch.Tensor:
        kind, size, at = tensors[name]
        columns = inner if name.endswith("fo.w") else width
        if name.endswith(".w") and "ln" not in name or name == "emb.word":
            return _four_bits(data, at, size, columns)
        return torch.from_numpy(np.frombuffer(data, "<f4", size, at).copy())

    encoder = Encoder(Shape(pieces=pieces, width=width, layers=layers, heads=heads, inner=inner, places=places))

    def names(number: int):
        part = lambda *own: {"from": [f"l{number}.{name}" for name in own], "weight": ".w", "bias": ".b"}
        return {
            "query_key_value": part("q", "k", "v"),
            "output": part("ao"),
            "attention_norm": part("aln"),
            "expand": part("fi"),
            "contract": part("fo"),
            "forward_norm": part("oln"),
        }

    _fill(encoder, get, names)
    with torch.no_grad():
        encoder.words.weight.copy_(get("emb.word"))
        encoder.places.weight.copy_(get("emb.pos").view(places, width) + get("emb.type").view(-1, width)[0])
        encoder.norm.weight.copy_(get("emb.ln.w"))
        encoder.norm.bias.copy_(get("emb.ln.b"))
    texts = [blob[offsets[at] : offsets[at + 1]].decode("utf8", "replace") for at in range(count)]
    tokenizer = _unigram(list(zip(texts, map(float, scores))), unknown)
    return Base(encoder, tokenizer, start, end)


def load_base(path: Path) -> Base:
    return load_safetensors(path) if path.is_dir() else load_four_bit(path)
