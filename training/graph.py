"""Writes an encoder as an ONNX graph of one text: its pieces in, the states of the pieces and the text's vector out."""

import numpy as np
import torch
from onnx import TensorProto, checker, helper, numpy_helper

from encoder import Encoder

OPSET = 17


class _Graph:
    def __init__(self):
        self.nodes, self.weights = [], []

    def constant(self, name: str, value: np.ndarray) -> str:
        self.weights.append(numpy_helper.from_array(value, name))
        return name

    def add(self, kind: str, inputs: list[str], name: str, domain: str = "", **options) -> str:
        self.nodes.append(helper.make_node(kind, inputs, [name], name=name, domain=domain, **options))
        return name


def _numbers(weight: torch.Tensor) -> np.ndarray:
    return weight.detach().to(torch.float32).numpy()


def _product(graph: _Graph, name: str, left: str, linear) -> str:
    """A layer: left × weights + bias, in floats; `quantise.py` makes whole numbers of it."""
    matrix = graph.constant(f"{name}.weight", np.ascontiguousarray(_numbers(linear.weight).T))
    bias = graph.constant(f"{name}.bias", _numbers(linear.bias))
    return graph.add("Add", [graph.add("MatMul", [left, matrix], f"{name}.product"), bias], name)


def _norm(graph: _Graph, name: str, of: str, norm) -> str:
    scale, bias = graph.constant(f"{name}.scale", _numbers(norm.weight)), graph.constant(f"{name}.bias", _numbers(norm.bias))
    return graph.add("LayerNormalization", [of, scale, bias], name, axis=-1, epsilon=norm.eps)


def _words(graph: _Graph, encoder: Encoder) -> str:
    """The table of pieces, in whole numbers of eight bits with a scale each, read and placed."""
    table = _numbers(encoder.words.weight)
    scale = np.maximum(np.abs(table).max(1, keepdims=True), 1e-12) / 127
    whole = np.clip(np.round(table / scale), -127, 127).astype(np.int8)
    read = graph.add("Gather", [graph.constant("words", whole), "pieces"], "words.whole")
    read = graph.add("Cast", [read], "words.cast", to=TensorProto.FLOAT)
    scales = graph.add("Gather", [graph.constant("words.scale", scale.astype(np.float32)), "pieces"], "words.scales")
    words = graph.add("Mul", [read, scales], "words.read")
    length = graph.add("Shape", ["pieces"], "length")
    zero = graph.constant("zero", np.array([0], np.int64))
    table = graph.constant("places", _numbers(encoder.places.weight))
    places = graph.add("Slice", [table, zero, length, zero], "places.read")
    return _norm(graph, "norm", graph.add("Add", [words, places], "read"), encoder.norm)


def _layer(graph: _Graph, name: str, states: str, layer) -> str:
    """States after one layer."""
    at = lambda part: f"{name}.{part}"
    width, heads = layer.output.weight.shape[0], layer.heads
    by_head = graph.constant(at("by_head.shape"), np.array([0, 3, heads, width // heads], np.int64))
    parts = _product(graph, at("query_key_value"), states, layer.query_key_value)
    parts = graph.add("Transpose", [graph.add("Reshape", [parts, by_head], at("by_head"))], at("parts"), perm=[1, 2, 0, 3])
    names = [at("query"), at("key"), at("value")]
    graph.nodes.append(helper.make_node("Split", [parts], names, name=at("split"), axis=0))
    key = graph.add("Transpose", [names[1]], at("key.turned"), perm=[0, 1, 3, 2])
    scale = graph.constant(at("scale"), np.array((width // heads) ** -0.5, np.float32))
    scores = graph.add("Mul", [graph.add("MatMul", [names[0], key], at("scores")), scale], at("scaled"))
    mixed = graph.add("MatMul", [graph.add("Softmax", [scores], at("shares"), axis=-1), names[2]], at("mixed"))
    mixed = graph.add("Transpose", [mixed], at("mixed.turned"), perm=[0, 2, 1, 3])
    mixed = graph.add("Reshape", [mixed, graph.constant(at("rows"), np.array([-1, width], np.int64))], at("joined"))
    mixed = _product(graph, at("output"), mixed, layer.output)
    states = _norm(graph, at("attention_norm"), graph.add("Add", [states, mixed], at("attended")), layer.attention_norm)
    wide = _bend(graph, name, _product(graph, at("expand"), states, layer.expand))
    narrow = _product(graph, at("contract"), wide, layer.contract)
    return _norm(graph, at("forward_norm"), graph.add("Add", [states, narrow], at("forwarded")), layer.forward_norm)


def _bend(graph: _Graph, name: str, wide: str) -> str:
    """The Gaussian error linear unit (Hendrycks and Gimpel, 2016)."""
    number = lambda part, value: graph.constant(f"{name}.{part}", np.array(value, np.float32))
    bent = graph.add("Erf", [graph.add("Mul", [wide, number("root", 2**-0.5)], f"{name}.rooted")], f"{name}.erf")
    bent = graph.add("Add", [bent, number("unit", 1)], f"{name}.shifted")
    return graph.add("Mul", [graph.add("Mul", [wide, bent], f"{name}.bent"), number("half", 0.5)], f"{name}.wide")


def _model(graph: _Graph, inputs, outputs):
    built = helper.make_graph(graph.nodes, "encoder", inputs, outputs, graph.weights)
    model = helper.make_model(built, opset_imports=[helper.make_opsetid("", OPSET)], ir_version=8)
    checker.check_model(model)
    return model


def write_graphs(encoder: Encoder, view: int, eye: tuple[np.ndarray, np.ndarray]):
    """Two models: from pieces to their states half way up, and from there to the text's vector.

    @param view the layer whose states are given for each piece, from 1: where words are told apart best
    @param eye what is taken off those states, and what they are multiplied with to be looked at
    """
    width = encoder.shape.width
    lower, upper = _Graph(), _Graph()
    states = _words(lower, encoder)
    for number, layer in enumerate(encoder.layers[:view]):
        states = _layer(lower, str(number), states, layer)
    lower.add("Identity", [states], "states")
    centred = lower.add("Sub", [states, lower.constant("eye.middle", eye[0].astype(np.float32))], "eye.centred")
    lower.add("MatMul", [centred, lower.constant("eye", eye[1].astype(np.float32))], "views")
    states = "states"
    for number, layer in enumerate(encoder.layers[view:], view):
        states = _layer(upper, str(number), states, layer)
    upper.add("ReduceMean", [states], "mean", axes=[0], keepdims=0)
    upper.add("LpNormalization", ["mean"], "vector", axis=0, p=2)
    numbers = lambda name, *shape: helper.make_tensor_value_info(name, TensorProto.FLOAT, list(shape))
    pieces = helper.make_tensor_value_info("pieces", TensorProto.INT64, ["length"])
    between = numbers("states", "length", width)
    views = numbers("views", "length", eye[1].shape[1])
    return _model(lower, [pieces], [between, views]), _model(upper, [between], [numbers("vector", width)])
