"""Rewrites an encoder so that its products run in whole numbers of eight bits on both sides, twice as fast as by blocks.

What a product reads is rounded to one scale a text, so channels that reach far would leave little to the others. How far
each channel reaches is measured on texts; what a product reads is divided by a share of that, and its weights are
multiplied by it (Xiao et al., SmoothQuant, 2023).

Use: npx tsx training/pieces.ts pieces.json
     python training/quantise.py --encoder models/encoder --pieces pieces.json --out models/encoder
"""

import argparse
import json
from pathlib import Path

import numpy as np
import onnx
import onnxruntime as ort
from onnx import helper, numpy_helper

OPSETS = [helper.make_opsetid("", 17), helper.make_opsetid("com.microsoft", 1)]
SHARES = (0.4, 0.5, 0.6, 0.7, 0.75, 0.8, 0.85, 0.9, 0.95, 1.0)
"""How much of the reach of a channel may go over to the weights: for each product what keeps it closest to that of floats."""
TRIED = 80
"""Texts that shares are tried on."""
LEAST = 1e-5


class Product:
    """A layer of the graph: what it reads, what it gives, and its weights (outputs × inputs)."""

    def __init__(self, node, weights, inputs):
        self.node, self.weights, self.inputs = node, weights, inputs
        self.name = node.output[0].removesuffix(".product")
        self.reads, self.gives = node.input[0], node.output[0]


def _weights_by_blocks(node, tensors) -> np.ndarray:
    whole, scale = tensors[node.input[1]].astype(np.float32) - 128, tensors[node.input[2]]
    return (whole * scale.reshape(*whole.shape[:2], 1)).reshape(whole.shape[0], -1)


def products_of(model) -> list[Product]:
    tensors = {tensor.name: numpy_helper.to_array(tensor) for tensor in model.graph.initializer}
    found = []
    for node in model.graph.node:
        if node.op_type == "MatMulNBits":
            found.append(Product(node, _weights_by_blocks(node, tensors), node.input[1:3]))
        elif node.op_type == "MatMul" and node.input[1].endswith(".weight"):
            found.append(Product(node, tensors[node.input[1]].T.astype(np.float32), node.input[1:2]))
    return found


def _rebuilt(model, nodes, tensors, outputs=None):
    used = {name for node in nodes for name in node.input}
    kept = [tensor for tensor in model.graph.initializer if tensor.name in used and tensor.name not in tensors]
    made = [numpy_helper.from_array(value, name) for name, value in tensors.items()]
    graph = helper.make_graph(nodes, "encoder", list(model.graph.input), outputs or list(model.graph.output), kept + made)
    return helper.make_model(graph, opset_imports=OPSETS, ir_version=8)


def as_floats(model):
    """The same graph with its products in floats, which tells all that they read."""
    tensors, by_node = {}, {id(product.node): product for product in products_of(model)}
    nodes = []
    for node in model.graph.node:
        product = by_node.get(id(node))
        if product is None:
            nodes.append(node)
            continue
        tensors[f"{product.name}.matrix"] = np.ascontiguousarray(product.weights.T)
        nodes.append(helper.make_node("MatMul", [product.reads, f"{product.name}.matrix"], [product.gives]))
    read = list(dict.fromkeys(product.reads for product in by_node.values()))
    told = [helper.make_tensor_value_info(name, onnx.TensorProto.FLOAT, None) for name in read]
    known = {output.name for output in model.graph.output} | {entry.name for entry in model.graph.input}
    return _rebuilt(model, nodes, tensors, list(model.graph.output) + [one for one in told if one.name not in known])


def session(model, threads=2):
    options = ort.SessionOptions()
    options.intra_op_num_threads, options.log_severity_level = threads, 3
    return ort.InferenceSession(model.SerializeToString(), options)


def readings_of(lower, upper, texts) -> dict[str, list[np.ndarray]]:
    """What products read, in each text: pieces × channels."""
    readings: dict[str, list[np.ndarray]] = {}
    sessions = [session(as_floats(model)) for model in (lower, upper)]
    for pieces in texts:
        given = {"pieces": np.array(pieces, np.int64)}
        for runs in sessions:
            told = dict(zip([output.name for output in runs.get_outputs()], runs.run(None, given))) | given
            for name, values in told.items():
                if values.dtype == np.float32 and values.ndim == 2:
                    readings.setdefault(name, []).append(values)
            given = {"states": told["states"]}
    return readings


def _rounded(values: np.ndarray) -> np.ndarray:
    """Values as the product reads them: whole numbers of eight bits with one scale and one zero for all."""
    low, high = min(values.min(), 0), max(values.max(), 0)
    scale = max((high - low) / 255, 1e-12)
    zero = np.round(-low / scale)
    return (np.clip(np.round(values / scale) + zero, 0, 255) - zero) * scale


def _whole(weights: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    scale = np.maximum(np.abs(weights).max(1), 1e-12) / 127
    return np.clip(np.round(weights / scale[:, None]), -127, 127), scale


def _turn_of(product: Product, readings: list[np.ndarray]) -> np.ndarray:
    """What each channel is divided by before a product, with a geometric mean of one."""
    reach = np.maximum(np.mean([np.abs(values).max(0) for values in readings], 0), LEAST)
    weight = np.maximum(np.abs(product.weights).max(0), LEAST)
    tried = readings[:: max(1, len(readings) // TRIED)]
    wanted = [values @ product.weights.T for values in tried]
    best, least = None, np.inf
    for share in SHARES:
        turn = reach**share / weight ** (1 - share)
        turn = turn / np.exp(np.log(turn).mean())
        whole, scale = _whole(product.weights * turn)
        given = [_rounded(values / turn) @ (whole * scale[:, None]).T for values in tried]
        error = sum(((a - b) ** 2).mean() for a, b in zip(wanted, given))
        if error < least:
            best, least = turn, error
    return best


def quantised(model, readings: dict[str, list[np.ndarray]]):
    products = products_of(model)
    turns = {product.name: _turn_of(product, readings[product.reads]) for product in products}
    # What attention gives is a mean of values, so that the values take its turn over.
    for product in products:
        layer, part = product.name.rsplit(".", 1)
        if part != "query_key_value":
            continue
        turn = turns[f"{layer}.output"]
        product.weights = np.concatenate([product.weights[: -len(turn)], product.weights[-len(turn) :] / turn[:, None]])
    tensors: dict[str, np.ndarray] = {}
    nodes, by_gives = [], {product.gives: product for product in products}
    biases = {node.output[0]: node for node in model.graph.node if node.op_type == "Add" and node.input[0] in by_gives}
    before = {tensor.name: numpy_helper.to_array(tensor) for tensor in model.graph.initializer}
    for node in model.graph.node:
        product = by_gives.get(node.output[0])
        if node.output[0] in biases:
            continue
        if node.op_type == "Mul" and node.name.endswith(".rooted"):
            nodes.append(helper.make_node("Gelu", [node.input[0]], [node.name.replace(".rooted", ".wide")], domain="com.microsoft"))
            continue
        if node.name.endswith((".erf", ".shifted", ".bent", ".wide")):
            continue
        if product is None:
            nodes.append(node)
            continue
        name, turn, read = product.name, turns[product.name], product.reads
        bias = before[next(one for one in biases.values() if one.input[0] == product.gives).input[1]]
        if name.endswith(".query_key_value"):
            value = turns[name.replace("query_key_value", "output")]
            bias = np.concatenate([bias[: -len(value)], bias[-len(value) :] / value])
        if not name.endswith(".output"):
            tensors[f"{name}.turn"] = (1 / turn).astype(np.float32)
            nodes.append(helper.make_node("Mul", [read, f"{name}.turn"], [f"{name}.turned"]))
            read = f"{name}.turned"
        turned = product.weights * turn[None, :]
        whole, scale = _whole(turned)
        tensors[f"{name}.whole"] = np.ascontiguousarray(whole.astype(np.int8).T)
        tensors[f"{name}.scale"] = scale.astype(np.float32)
        tensors[f"{name}.bias"] = bias.astype(np.float32)
        inputs = [read, f"{name}.whole", f"{name}.scale", "", f"{name}.bias"]
        nodes.append(helper.make_node("DynamicQuantizeMatMul", inputs, [name], name=name, domain="com.microsoft"))
    return _rebuilt(model, nodes, tensors)


def load_packed(folder: Path) -> list:
    manifest = json.loads((folder / "encoder.json").read_text())
    joined = [b"".join((folder / part["name"]).read_bytes() for part in manifest[half]["parts"]) for half in ("lower", "upper")]
    return [onnx.load_model_from_string(half) for half in joined]


def main() -> None:
    from parts import write_encoder

    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--encoder", type=Path, required=True, help="a packed encoder whose products are floats or go by blocks")
    parser.add_argument("--pieces", type=Path, required=True, help="what pieces.ts wrote")
    parser.add_argument("--name", default="e12-384")
    parser.add_argument("--out", type=Path, required=True)
    options = parser.parse_args()
    halves = load_packed(options.encoder)
    readings = readings_of(*halves, json.loads(options.pieces.read_text()))
    vocabulary = (options.encoder / "pieces.txt").read_bytes()
    print(write_encoder(options.out, options.name, vocabulary, [quantised(half, readings) for half in halves]))


if __name__ == "__main__":
    main()
