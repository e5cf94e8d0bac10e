"""How well a bot of few utterances reads customers, with vectors of an encoder: what encoders are chosen by.

The recogniser itself is measured with `./reed evaluate`; this is its heart alone (one regression over the encoder's
vectors and n-grams, with a class for what lies outside), quick enough to be asked after each training.
"""

import json
from dataclasses import dataclass, field
from pathlib import Path

import numpy as np
import torch
from scipy import sparse
from sklearn.metrics import roc_auc_score

KEPT_APART = tuple(json.loads((Path(__file__).parent / "kept-apart.json").read_text()))
NEVER_LEARNED = (*KEPT_APART, "print", "nursery", "waste")

ENCODER_WEIGHT = 1.25
BACKGROUND_SHARE = 0.22
INVERSE_PENALTY = 10.0
TEMPERATURE = 0.37


@dataclass
class Line:
    intent: str | None
    style: str
    text: str
    terms: list[int]


@dataclass
class Trade:
    name: str
    lines: list[Line]
    grams: torch.Tensor = field(repr=False)
    """Products of the n-grams of all lines and of the background behind them."""

    @property
    def intents(self) -> list[str]:
        return list(dict.fromkeys(line.intent for line in self.lines if line.intent is not None))


def _grams(lines: list[Line], background: list[Line], size: int, groups: np.ndarray) -> torch.Tensor:
    """TF-IDF with sublinear counts, words, characters and values each of a length of their own, as the recogniser's."""
    taught = [line.style == "utterance" for line in lines] + [True] * len(background)
    everything = lines + background
    rows = np.concatenate([np.full(len(line.terms) // 2, at) for at, line in enumerate(everything)])
    terms = np.concatenate([line.terms[0::2] for line in everything]).astype(int)
    counts = np.concatenate([line.terms[1::2] for line in everything]).astype(float)
    known = np.bincount(terms[np.array(taught)[rows]], minlength=size)
    inverse = np.where(known > 0, np.log((1 + sum(taught)) / (1 + known)) + 1, 0)
    weights = (1 + np.log(counts)) * inverse[terms]
    matrix = sparse.csr_matrix((len(everything), size))
    for group, share in enumerate((1.0, 0.8, 0.7)):
        own = sparse.csr_matrix((weights * (groups[terms] == group), (rows, terms)), (len(everything), size))
        lengths = np.sqrt(np.asarray(own.multiply(own).sum(1))).ravel()
        matrix = matrix + sparse.diags(share / np.maximum(lengths, 1e-9)) @ own
    return torch.from_numpy((matrix @ matrix.T).toarray().astype(np.float32))


def read_texts(file: Path) -> tuple[list[Trade], list[Line]]:
    """Trades and background of what `texts.ts` wrote."""
    read = json.loads(file.read_text())
    groups = np.array(read["groups"])
    background = [Line(**line) for line in read["background"]]
    trades = []
    for trade in read["trades"]:
        lines = [Line(**line) for line in trade["lines"]]
        trades.append(Trade(trade["trade"], lines, _grams(lines, background, read["terms"], groups)))
    return trades, background


def _regress(kernel: torch.Tensor, labels: torch.Tensor, weights: torch.Tensor, classes: int) -> torch.Tensor:
    """Multinomial logistic regression over a kernel with an L2 penalty: coefficients, rows × classes."""
    factor = torch.linalg.cholesky(kernel.double() + 1e-4 * torch.eye(len(kernel)))
    plane = torch.zeros(len(kernel), classes, dtype=torch.float64, requires_grad=True)
    solver = torch.optim.LBFGS([plane], max_iter=60, history_size=12, line_search_fn="strong_wolfe")

    def loss():
        solver.zero_grad()
        each = torch.nn.functional.cross_entropy(factor @ plane, labels, reduction="none")
        total = (weights * each).sum() + (plane**2).sum() / (2 * INVERSE_PENALTY)
        total.backward()
        return total

    solver.step(loss)
    return torch.linalg.solve_triangular(factor.T, plane.detach(), upper=True).float()


def read_trade(trade: Trade, vectors: torch.Tensor, background: torch.Tensor) -> dict:
    """Figures of one trade. @param vectors of its lines"""
    intents = trade.intents
    everything = torch.cat([vectors, background])
    kernel = ENCODER_WEIGHT**2 * (everything @ everything.T) + 1 + trade.grams
    lines = trade.lines
    taught = [at for at, line in enumerate(lines) if line.style == "utterance"]
    asked = [at for at, line in enumerate(lines) if line.style != "utterance"]
    known = torch.tensor(taught + list(range(len(lines), len(everything))))
    labels = torch.tensor([intents.index(lines[at].intent) for at in taught] + [len(intents)] * len(background))
    share = BACKGROUND_SHARE * len(taught) / len(background)
    weights = torch.tensor([1.0] * len(taught) + [share] * len(background), dtype=torch.float64)
    coefficients = _regress(kernel[known][:, known], labels, weights, len(intents) + 1)
    scores = kernel[torch.tensor(asked)][:, known] @ coefficients
    confidence = torch.softmax(scores / TEMPERATURE, 1)[:, :-1]
    inside = [at for at, place in enumerate(asked) if lines[place].intent is not None]
    expected = torch.tensor([intents.index(lines[asked[at]].intent) for at in inside])
    order = scores[inside][:, :-1].argsort(1, descending=True)
    right = (order[:, 0] == expected).numpy()
    styles = np.array([lines[asked[at]].style for at in inside])
    is_inside = np.zeros(len(asked), bool)
    is_inside[inside] = True
    figures = {
        "first": right.mean(),
        "three": (order[:, :3] == expected[:, None]).any(1).float().mean().item(),
        "area": roc_auc_score(is_inside, confidence.max(1).values),
    }
    for style in dict.fromkeys(styles):
        figures[style] = right[styles == style].mean()
    correct = np.zeros(len(asked))
    correct[inside] = right
    figures["accepted"] = accepted_at(confidence.max(1).values.numpy(), correct, 0.97) * len(asked) / len(inside)
    return figures


def accepted_at(confidence: np.ndarray, right: np.ndarray, precision: float) -> float:
    """The largest share of messages that can be accepted, the surest first, with so many of them right."""
    order = np.argsort(-confidence)
    share = np.cumsum(right[order]) / np.arange(1, len(order) + 1)
    enough = np.nonzero(share >= precision)[0]
    return 0.0 if len(enough) == 0 else (enough[-1] + 1) / len(order)


def summary(trades: list[Trade], vectors_of) -> dict[str, dict]:
    """Figures of each trade. @param vectors_of gives the vectors of lines"""
    return {trade.name: read_trade(trade, *vectors_of(trade)) for trade in trades}


COLUMNS = ("first", "three", "area", "accepted", "plain", "long", "terse", "spoken", "typo")


def show(name: str, figures: dict[str, dict]) -> str:
    """One line: the mean over the trades kept apart, and the first intent of the others."""
    apart = [figures[trade] for trade in KEPT_APART if trade in figures]
    means = " ".join(f"{column} {np.mean([own[column] for own in apart]):.3f}" for column in COLUMNS)
    others = " ".join(
        f"{trade} {own['first']:.3f}/{own['area']:.3f}" for trade, own in figures.items() if trade not in KEPT_APART
    )
    return f"{name:28s} {means} | {others}"
