"""What the wire carries of meats, lots, evidence, targets and schools."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from vianda.api.wire import Text, Units
from vianda.core.basis.bounds import Key, KeyOrEmpty, Share
from vianda.core.basis.working import Working
from vianda.core.blend.taste import Proposal
from vianda.core.evaluation.evaluate import Evaluation
from vianda.core.inventory.fat_range import FatRange
from vianda.core.inventory.fat_test import FatTest
from vianda.core.inventory.inventory import Meat, Species
from vianda.core.inventory.lot import Lot
from vianda.core.model.formula import Formula
from vianda.core.reading.entry import read_frac
from vianda.core.target import wish as core
from vianda.core.target.mend import Addition
from vianda.interchange.documents import Strict
from vianda.services.larders import Finding, KnownLot, TypedWeights
from vianda.services.row_report import RowReport
from vianda.services.targets import DrawnSquare, Proposed, Solved, TypedWish

Revision = Annotated[int, Field(ge=1)]


class MeatRequest(Strict):
    """A meat to write down; ``seen`` is what stood there before, or null for a new one."""

    meat: Meat
    seen: Meat | None


class LotRequest(Strict):
    """A delivery to write down; its key is made here."""

    lot: Lot


class LotSaveRequest(Strict):
    """A lot and the revision it was opened at."""

    lot: Lot
    revision: Revision


class LearnRequest(Strict):
    """What a label, a butcher or a laboratory says of a lot's fat, as typed."""

    kind: Literal["label", "butcher", "laboratory"]
    fat: Text
    revision: Revision


class WeightsModel(Strict):
    """The four weights of a fat test, as typed."""

    raw: Text
    lean: Text
    fat: Text
    liquid: Text = ""

    def typed(self) -> TypedWeights:
        """For the service."""
        return TypedWeights(self.raw, self.lean, self.fat, self.liquid)


class FatTestRequest(Strict):
    """Weights to be read, without keeping them."""

    weights: WeightsModel
    unit_system: Units


class FatTestLogRequest(FatTestRequest):
    """Weights to be kept as evidence on a lot."""

    revision: Revision


class ForgetRequest(Strict):
    """Which finding to take back."""

    at: Annotated[int, Field(ge=0, le=100)]
    revision: Revision


class CsvRequest(Strict):
    """The text of a table: the larder, the pantry."""

    text: Annotated[str, Field(max_length=900_000)]


class LotAnswer(BaseModel):
    """A lot with what is known of its fat: by its meat's name, and after its evidence."""

    revision: int
    lot: Lot
    prior: FatRange
    known: FatRange
    findings: list[Finding]
    working: Working


class CsvAnswer(BaseModel):
    """What became of each row of a larder file."""

    rows: list[RowReport]


class LarderAnswer(BaseModel):
    """All meats, retired ones too, and all lots."""

    meats: list[Meat]
    lots: list[LotAnswer]


class FatTestAnswer(BaseModel):
    """What a fat test says."""

    test: FatTest
    roughness: str


def _share(text: str, default: float, field: str) -> float:
    """A share as typed, per cent; nothing typed is no limit."""
    return read_frac(text, field=field) if text.strip() else default


class CandidateModel(Strict):
    """A meat that may come in, with bounds on its share as typed (per cent), and its share now (0–1)."""

    meat: Key
    lot: KeyOrEmpty = ""
    least: Text = ""
    most: Text = ""
    now_frac: Share = 0.0

    def to_core(self, at: int = 0) -> core.Candidate:
        """The core's candidate."""
        where = f"/candidates/{at}"
        least, most = _share(self.least, 0.0, where), _share(self.most, 1.0, where)
        return core.Candidate(self.meat, self.lot, least, most, self.now_frac)


class SpeciesModel(Strict):
    """At least and at most so much of a species, as typed (per cent)."""

    species: Species
    least: Text = ""
    most: Text = ""

    def to_core(self, at: int) -> core.SpeciesLimit:
        """The core's limit."""
        where = f"/species/{at}"
        return core.SpeciesLimit(self.species, _share(self.least, 0.0, where), _share(self.most, 1.0, where))


class TypedModel(Strict):
    """What was typed: fat wanted from and to, the share of batches that must hold it, collagen by protein at most."""

    fat_low: Text
    fat_high: Text
    confidence: Text = ""
    collagen_most: Text = ""

    def typed(self) -> TypedWish:
        """For the service."""
        return TypedWish(**self.model_dump())


class SolveRequest(Strict):
    """A formula, the meats to choose from, limits and an aim."""

    formula: Formula
    candidates: Annotated[list[CandidateModel], Field(min_length=1, max_length=core.MOST_CANDIDATES)]
    typed: TypedModel
    aim: core.Aim
    species: Annotated[list[SpeciesModel], Field(max_length=7, default_factory=list)]
    most_meats: Annotated[int, Field(ge=1, le=8)] = 4
    least_share_frac: Annotated[float, Field(ge=0, le=0.5)] = core.LEAST_SHARE_FRAC
    whole_packs: bool = False
    use_stock: bool = True
    today: date | None = None

    def wish(self) -> core.Wish:
        """The core's wish; the band is filled in by the service from what was typed."""
        return core.Wish(
            candidates=tuple(c.to_core(at) for at, c in enumerate(self.candidates)),
            fat_low_frac=0.0,
            fat_high_frac=1.0,
            aim=self.aim,
            species=tuple(s.to_core(at) for at, s in enumerate(self.species)),
            most_meats=self.most_meats,
            least_share_frac=self.least_share_frac,
            whole_packs=self.whole_packs,
            use_stock=self.use_stock,
            today=self.today,
        )


SolveAnswer = Solved


class SquareRequest(Strict):
    """Two meats and a target, as typed."""

    one: CandidateModel
    two: CandidateModel
    target: Text


SquareAnswer = DrawnSquare


class FirstSquareRequest(Strict):
    """A formula whose meats the first square is drawn for."""

    formula: Formula


class MendRequest(Strict):
    """A batch, its fat and the fat wanted, as typed; candidates, or none for all beef of the larder."""

    batch: Text
    fat: Text
    target: Text
    candidates: Annotated[list[CandidateModel], Field(max_length=core.MOST_CANDIDATES, default_factory=list)]
    unit_system: Units


class MendAnswer(BaseModel):
    """Additions, the smallest first."""

    additions: list[Addition]


class ProposeRequest(Strict):
    """A formula and words of taste."""

    formula: Formula
    words: Annotated[str, Field(max_length=200)]


class ProposeAnswer(BaseModel):
    """The formula that the words ask for, with the reasons."""

    proposal: Proposal
    formula: Formula
    evaluation: Evaluation


def lot_answer(known: KnownLot) -> LotAnswer:
    """A lot for the wire."""
    return LotAnswer(
        revision=known.revision,
        lot=known.lot,
        prior=known.prior,
        known=known.known,
        findings=list(known.findings),
        working=known.working,
    )


def propose_answer(done: Proposed) -> ProposeAnswer:
    """A proposal for the wire."""
    return ProposeAnswer.model_construct(proposal=done.proposal, formula=done.formula, evaluation=done.evaluation)
