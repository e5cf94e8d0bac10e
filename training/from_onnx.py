"""Brings a BERT encoder kept as ONNX, in floats or eight bits, to the form that `encoder.py` begins from.

The matrices of such a file have no names of their own; they are found by the bias that is added to what they give.
"""

import argparse
import json
from pathlib import Path

import numpy as np
import onnx
import torch
from onnx import numpy_helper
from safetensors.torch import save_file

QUANTISED = "_quantized"
PRODUCTS = ("MatMul", "MatMulInteger")


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--onnx", type=Path, required=True)
    parser.add_argument("--out", type=Path, required=True, help="a folder, in which tokenizer.json is put by hand")
    options = parser.parse_args()
    graph = onnx.load(options.onnx).graph
    given = {one.name: one for one in graph.initializer}
    maker = {name: node for node in graph.node for name in node.output}

    def plain(name: str) -> np.ndarray:
        return numpy_helper.to_array(given[name]).astype(np.float32)

    def whole(name: str) -> np.ndarray:
        if name in given and not name.endswith(QUANTISED):
            return plain(name)
        stem = name.removesuffix(QUANTISED)
        return (plain(stem + QUANTISED) - plain(f"{stem}_zero_point")) * plain(f"{stem}_scale")

    def matrix_before(value: str) -> str:
        node = maker[value]
        while node.op_type not in PRODUCTS:
            before = [maker[name] for name in node.input if name in maker]
            by_kind = {one.op_type: one for one in before}
            node = by_kind.get("MatMulInteger") or by_kind.get("Cast") or by_kind["Mul"]
        return node.input[1]

    weights: dict[str, torch.Tensor] = {}
    for node in graph.node:
        for name in node.input:
            if name not in given or not name.startswith("encoder.layer") or not name.endswith(".bias"):
                continue
            weights[name] = torch.tensor(plain(name))
            if "LayerNorm" in name:
                weights[name.replace(".bias", ".weight")] = torch.tensor(plain(name.replace(".bias", ".weight")))
                continue
            product = next(other for other in node.input if other != name and other in maker)
            weights[name.replace(".bias", ".weight")] = torch.tensor(whole(matrix_before(product))).T.contiguous()
    for name in ("word_embeddings", "position_embeddings", "token_type_embeddings"):
        weights[f"embeddings.{name}.weight"] = torch.tensor(whole(f"embeddings.{name}.weight"))
    for part in ("weight", "bias"):
        weights[f"embeddings.LayerNorm.{part}"] = torch.tensor(plain(f"embeddings.LayerNorm.{part}"))
    options.out.mkdir(parents=True, exist_ok=True)
    save_file(weights, options.out / "model.safetensors")
    pieces, width = weights["embeddings.word_embeddings.weight"].shape
    layers = 1 + max(int(name.split(".")[2]) for name in weights if name.startswith("encoder.layer"))
    config = {
        "vocab_size": pieces,
        "hidden_size": width,
        "num_hidden_layers": layers,
        "num_attention_heads": width // 32,
        "intermediate_size": weights["encoder.layer.0.intermediate.dense.bias"].shape[0],
        "max_position_embeddings": weights["embeddings.position_embeddings.weight"].shape[0],
    }
    (options.out / "config.json").write_text(json.dumps(config))


if __name__ == "__main__":
    main()
