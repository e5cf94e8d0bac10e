"""Teaches an encoder which messages ask for the same thing.

A step is one trade: some of its intents, with utterances and customers' lines of each, lines out of scope and lines of
the background. Two losses are added: supervised contrast (Khosla et al., 2020), and an episode in which a ridge
regression over the recogniser's kernel learns from the utterances and must read the customers' lines. At the end the
taught weights are mixed with those of the base, which forgets less (Wortsman et al., 2022). Work that was cut short goes on
from its last twenty steps.
"""

import argparse
import json
import random
import time
from pathlib import Path

import torch
from torch import nn
from torch.nn import functional

from encoder import LONGEST, LONGEST_READ, Base, encode, load_base
from measure import ENCODER_WEIGHT, NEVER_LEARNED, Line, Trade, read_texts, show, summary

INTENTS = 14
OF_INTENT = 4
"""Utterances of an intent in a step, and as many customers' lines."""
OUTSIDE = 12
BEHIND = 16
CONTRAST_TEMPERATURE = 0.07
EPISODE_SHARE = 0.5
MANY_WORDS = 35
OUTSIDE_WEIGHT = 0.7
LONG_WEIGHT = 0.5
WARM_UP = 0.08


class Episode(nn.Module):
    """The regression of an episode; how sharp its scores are and how much it is held back is learned."""

    def __init__(self):
        super().__init__()
        self.scale = nn.Parameter(torch.tensor(2.0))
        self.penalty = nn.Parameter(torch.tensor(0.0))

    def forward(self, kernel, known, asked, labels, targets):
        """@param kernel of all texts @param labels of the known texts, one-hot @param targets of the asked ones"""
        among = kernel[known][:, known] + torch.exp(self.penalty) * torch.eye(len(known))
        scores = kernel[asked][:, known] @ torch.linalg.solve(among, labels)
        return functional.cross_entropy(torch.exp(self.scale) * scores, targets, reduction="none")


def contrast(vectors: torch.Tensor, labels: torch.Tensor) -> torch.Tensor:
    """Supervised contrast; texts labelled below zero belong to no intent and only push others away."""
    similar = vectors @ vectors.T / CONTRAST_TEMPERATURE
    similar = similar.masked_fill(torch.eye(len(vectors), dtype=torch.bool), -1e4)
    log_share = similar - similar.logsumexp(1, keepdim=True)
    same = (labels[:, None] == labels[None]) & (labels[:, None] >= 0) & ~torch.eye(len(labels), dtype=torch.bool)
    counts = same.sum(1)
    own = (log_share * same).sum(1)[counts > 0] / counts[counts > 0]
    return -own.mean()


class Lessons:
    """Draws the texts of steps."""

    def __init__(self, trades: list[Trade], background: list[Line], base: Base, seed: int, longest: int):
        self.random = random.Random(seed)
        self.trades = trades
        self.background = [base.pieces(line.text, longest) for line in background]
        self.pieces = {trade.name: [base.pieces(line.text, longest) for line in trade.lines] for trade in trades}
        self.order: list[Trade] = []

    def draw(self):
        if not self.order:
            self.order = self.random.sample(self.trades, len(self.trades))
        trade = self.order.pop()
        intents = self.random.sample(trade.intents, min(INTENTS, len(trade.intents)))
        chosen: list[int] = []
        labels: list[int] = []
        known: list[int] = []
        for number, intent in enumerate(intents):
            for taught in (True, False):
                own = [
                    at
                    for at, line in enumerate(trade.lines)
                    if line.intent == intent and (line.style == "utterance") == taught
                ]
                for at in self.random.sample(own, min(OF_INTENT, len(own))):
                    if taught:
                        known.append(len(chosen))
                    chosen.append(at)
                    labels.append(number)
        outside = [at for at, line in enumerate(trade.lines) if line.intent is None]
        for at in self.random.sample(outside, min(OUTSIDE, len(outside))):
            chosen.append(at)
            labels.append(-1)
        behind = self.random.sample(range(len(self.background)), BEHIND)
        places = chosen + [len(trade.lines) + at for at in behind]
        pieces = [self.pieces[trade.name][at] for at in chosen] + [self.background[at] for at in behind]
        weights = [
            OUTSIDE_WEIGHT
            if trade.lines[at].intent is None
            else LONG_WEIGHT
            if len(trade.lines[at].text.split()) > MANY_WORDS
            else 1.0
            for at in chosen
        ]
        grams = trade.grams[torch.tensor(places)][:, torch.tensor(places)]
        return pieces, torch.tensor(labels + [-2] * BEHIND), known, torch.tensor(weights), grams, len(intents)


def teach(base: Base, trades: list[Trade], background: list[Line], options) -> None:
    torch.manual_seed(options.seed)
    lessons = Lessons(trades, background, base, options.seed, options.longest)
    encoder, episode = base.encoder, Episode()
    tables = [encoder.words.weight, encoder.places.weight]
    others = [weight for name, weight in encoder.named_parameters() if not name.startswith(("words", "places"))]
    groups = [
        {"params": others, "peak": options.rate},
        {"params": tables, "peak": options.rate / 3},
        {"params": list(episode.parameters()), "peak": 1e-2},
    ]
    adam = torch.optim.Adam(groups, lr=options.rate)
    encoder.train()
    started, told = time.time(), [0.0, 0.0]
    kept = options.out.with_suffix(".begun")
    first = 0
    asked_for = [options.rate, options.steps, options.longest, options.dropout, options.seed]
    if kept.exists():
        begun = torch.load(kept, weights_only=False)
        if begun["options"] != asked_for:
            raise SystemExit(f"{kept} was begun with other options; take it away to begin anew.")
        first = begun["step"]
        encoder.load_state_dict(begun["encoder"])
        episode.load_state_dict(begun["episode"])
        adam.load_state_dict(begun["adam"])
        lessons.random.setstate(begun["random"])
        lessons.order = [trade for name in begun["order"] for trade in trades if trade.name == name]
        torch.set_rng_state(begun["torch"])
        print(f"goes on after step {first}", flush=True)
    for step in range(first, options.steps):
        share = (step + 1) / options.steps
        for group in adam.param_groups:
            group["lr"] = group["peak"] * min(share / WARM_UP, (1 - share) / (1 - WARM_UP) + 1e-3)
        pieces, labels, known, weights, grams, intents = lessons.draw()
        vectors = encode(encoder, pieces, options.dropout)
        near = contrast(vectors, labels)
        kernel = ENCODER_WEIGHT**2 * (vectors @ vectors.T) + 0.2 + grams
        behind = list(range(len(labels) - BEHIND, len(labels)))
        support = torch.tensor(known + behind)
        taken = set(support.tolist())
        asked = torch.tensor([at for at in range(len(labels)) if at not in taken])
        of = torch.where(labels < 0, intents, labels)
        targets = functional.one_hot(of[support], intents + 1).float()
        each = episode(kernel, support, asked, targets, of[asked])
        read = (weights[asked] * each).sum() / weights[asked].sum()
        loss = near + EPISODE_SHARE * read
        adam.zero_grad()
        loss.backward()
        nn.utils.clip_grad_norm_(encoder.parameters(), 1.0)
        adam.step()
        told = [told[0] + near.item(), told[1] + read.item()]
        if (step + 1) % 20 == 0:
            print(f"step {step + 1} contrast {told[0] / 20:.3f} episode {told[1] / 20:.3f} {time.time() - started:.0f} s", flush=True)
            told = [0.0, 0.0]
            begun = {
                "step": step + 1,
                "options": asked_for,
                "encoder": encoder.state_dict(),
                "episode": episode.state_dict(),
                "adam": adam.state_dict(),
                "random": lessons.random.getstate(),
                "order": [trade.name for trade in lessons.order],
                "torch": torch.get_rng_state(),
            }
            torch.save(begun, kept)
    kept.unlink(missing_ok=True)
    encoder.eval()


def vectors_with(base: Base, background: list[Line]):
    """Vectors of trades and of the background, as {@link summary} asks for them."""
    base.encoder.eval()

    def of(lines: list[Line]) -> torch.Tensor:
        with torch.no_grad():
            return encode(base.encoder, [base.pieces(line.text, LONGEST_READ) for line in lines])

    behind = of(background)
    return lambda trade: (of(trade.lines), behind)


def mixed(base: dict, taught: dict, share: float) -> dict:
    """Weights between those of the base and the taught ones. @param share of the taught ones, 0..1"""
    return {name: (1 - share) * base[name] + share * taught[name] for name in base}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--base", type=Path, required=True)
    parser.add_argument("--texts", type=Path, required=True)
    parser.add_argument("--out", type=Path, required=True)
    parser.add_argument("--rate", type=float, default=3e-4)
    parser.add_argument("--steps", type=int, default=260)
    parser.add_argument("--trades", type=int, help="so many trades alone, for a learning curve; all without it")
    parser.add_argument("--longest", type=int, default=LONGEST, help="pieces of a text that are read")
    parser.add_argument("--dropout", type=float, default=0.1)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--mixes", type=float, nargs="+", default=[0.7])
    options = parser.parse_args()
    trades, background = read_texts(options.texts)
    base = load_base(options.base)
    used = base.cut_to([line.text for line in background] + [line.text for trade in trades for line in trade.lines])
    before = {name: weight.clone() for name, weight in base.encoder.state_dict().items()}
    lessons = [trade for trade in trades if trade.name not in NEVER_LEARNED]
    teach(base, random.Random(0).sample(lessons, options.trades or len(lessons)), background, options)
    after = {name: weight.clone() for name, weight in base.encoder.state_dict().items()}
    torch.save({"weights": after, "pieces": used}, options.out)
    never = [trade for trade in trades if trade.name in NEVER_LEARNED]
    for share in options.mixes:
        base.encoder.load_state_dict(mixed(before, after, share))
        print(show(f"{options.out.stem} mix {share}", summary(never, vectors_with(base, background))), flush=True)


if __name__ == "__main__":
    main()
