"""The larder: meats, lots, evidence, and the larder as a file."""

from __future__ import annotations

from flask import Blueprint, Response

from vianda.api import larder_schemas as s
from vianda.api.attachment import csv_file
from vianda.api.contract import operation
from vianda.api.problems import ProblemError, problem
from vianda.core.inventory.evidence import ROUGHNESS
from vianda.core.inventory.inventory import Meat
from vianda.services import larders

blueprint = Blueprint("larder", __name__, url_prefix="/api/larder")


@operation(blueprint, "GET", "", summary="All meats and lots", answer=s.LarderAnswer)
def get_larder() -> s.LarderAnswer:
    return s.LarderAnswer(
        meats=list(larders.get_inventory().meats.values()), lots=[s.lot_answer(k) for k in larders.list_lots()]
    )


@operation(
    blueprint,
    "PUT",
    "/meats/<key>",
    summary="Add, correct or retire a meat",
    body=s.MeatRequest,
    answer=Meat,
    problems=(404, 409),
    once=True,
)
def save_meat(key: str, body: s.MeatRequest) -> Meat:
    if key != body.meat.key:
        raise ProblemError(
            problem(422, "invalid", "A value does not fit", "The meat has another key than its address.")
        )
    return larders.save_meat(body.meat, seen=body.seen)


@operation(
    blueprint, "POST", "/lots", summary="Add a delivery", body=s.LotRequest, answer=s.LotAnswer, status=201, once=True
)
def add_lot(body: s.LotRequest) -> s.LotAnswer:
    return s.lot_answer(larders.add_lot(body.lot))


@operation(
    blueprint,
    "PUT",
    "/lots/<key>",
    summary="Edit or close a lot",
    body=s.LotSaveRequest,
    answer=s.LotAnswer,
    problems=(404, 409),
    once=True,
)
def save_lot(key: str, body: s.LotSaveRequest) -> s.LotAnswer:
    if key != body.lot.key:
        raise ProblemError(problem(422, "invalid", "A value does not fit", "The lot has another key than its address."))
    return s.lot_answer(larders.save_lot(body.lot, revision=body.revision))


@operation(
    blueprint,
    "POST",
    "/lots/<key>/evidence",
    summary="Add what is said of a lot's fat",
    body=s.LearnRequest,
    answer=s.LotAnswer,
    problems=(404, 409),
    once=True,
)
def learn(key: str, body: s.LearnRequest) -> s.LotAnswer:
    return s.lot_answer(larders.learn(key, kind=body.kind, fat=body.fat, revision=body.revision))


@operation(
    blueprint,
    "POST",
    "/lots/<key>/fat-test",
    summary="Keep a fat test as evidence",
    body=s.FatTestLogRequest,
    answer=s.LotAnswer,
    problems=(404, 409),
    once=True,
)
def log_fat_test(key: str, body: s.FatTestLogRequest) -> s.LotAnswer:
    done = larders.log_fat_test(key, body.weights.typed(), unit_system=body.unit_system, revision=body.revision)
    return s.lot_answer(done)


@operation(
    blueprint,
    "POST",
    "/lots/<key>/forget",
    summary="Take a finding back",
    body=s.ForgetRequest,
    answer=s.LotAnswer,
    problems=(404, 409),
    once=True,
)
def forget(key: str, body: s.ForgetRequest) -> s.LotAnswer:
    return s.lot_answer(larders.forget(key, at=body.at, revision=body.revision))


@operation(
    blueprint,
    "POST",
    "/fat-test",
    summary="Read a fat test without keeping it",
    body=s.FatTestRequest,
    answer=s.FatTestAnswer,
)
def read_fat_test(body: s.FatTestRequest) -> s.FatTestAnswer:
    test = larders.try_fat_test(body.weights.typed(), unit_system=body.unit_system)
    return s.FatTestAnswer(test=test, roughness=ROUGHNESS["fat-test"])


@operation(blueprint, "GET", "/file.csv", summary="The larder as CSV", gives="text/csv")
def larder_as_csv() -> Response:
    return csv_file(larders.export_csv(), name="larder")


@operation(
    blueprint,
    "POST",
    "/file",
    summary="Take in a larder file, row by row",
    body=s.CsvRequest,
    answer=s.CsvAnswer,
    once=True,
)
def import_csv(body: s.CsvRequest) -> s.CsvAnswer:
    return s.CsvAnswer(rows=larders.import_csv(body.text))
