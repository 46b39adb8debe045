"""Reach a target of fat: the square, a mend, many meats; and a blend from words of taste."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.phrase import Phrase, frac, say, word
from vianda.core.basis.units import UnitSystem
from vianda.core.blend.cost import usable_frac
from vianda.core.blend.schools import school_of
from vianda.core.blend.taste import Proposal, propose
from vianda.core.counsel.rule import Change
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import Choose, LayOut
from vianda.core.model.formula import LONGEST_NAME, Formula
from vianda.core.model.styles import style_of
from vianda.core.opening.opening import Opening
from vianda.core.opening.questions import Question
from vianda.core.reading.entry import read_frac, read_mass_g
from vianda.core.reading.line import read_line
from vianda.core.target.binding import SwapPrice, binding_limits, price_of_certainty, swap_prices
from vianda.core.target.mend import Addition, additions
from vianda.core.target.nearest_changes import nearest_changes
from vianda.core.target.pearson import FirstSquare, PearsonSquare, first_square, pearson_square
from vianda.core.target.program import Program, program_of
from vianda.core.target.solve import Answer, NoBlendError, solve
from vianda.core.target.wish import Candidate, Wish
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context, open_line_here

# A wish in words aims at a band this far either side of its figure (ours).
AIM_HALF_WIDTH_FRAC = 0.012
# What a wish for a taste starts from when nothing else is said.
DEFAULT_LINE = "burgers for 4 people"


@dataclass(frozen=True, slots=True)
class TypedWish:
    """What the cook typed beside the candidates; the rest is in ``Wish``."""

    fat_low: str
    fat_high: str
    confidence: str = ""
    collagen_most: str = ""


@dataclass(frozen=True, slots=True)
class SolvedAnswer:
    """An answer with the limits it leans on."""

    answer: Answer
    binding: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class Solved:
    """Answers, best first; without one, the smallest changes that would let one. And prices that would swap cuts."""

    answers: tuple[SolvedAnswer, ...]
    changes: tuple[Phrase, ...]
    swaps: tuple[SwapPrice, ...]


def solve_for(formula: Formula, wish: Wish, typed: TypedWish) -> Solved:
    """Solve a wish for the batch of a formula on this kitchen's scale."""
    inventory, kitchen = context()
    return solve_in(formula, wish, typed, inventory=inventory, kitchen=kitchen)


def solve_in(formula: Formula, wish: Wish, typed: TypedWish, *, inventory: Inventory, kitchen: Kitchen) -> Solved:
    """The same for any larder and kitchen."""
    evaluation = evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    batch_g, loss = evaluation.blend.batch_mass_g, evaluation.grind.loss_frac
    full = replace(
        wish,
        fat_low_frac=read_frac(typed.fat_low, field="/typed/fat_low"),
        fat_high_frac=read_frac(typed.fat_high, field="/typed/fat_high"),
        confidence_frac=read_frac(typed.confidence, field="/typed/confidence") if typed.confidence.strip() else 0.0,
        collagen_most_frac=(
            read_frac(typed.collagen_most, field="/typed/collagen_most") if typed.collagen_most.strip() else 1.0
        ),
    )
    program = program_of(full, inventory=inventory, batch_mass_g=batch_g, grind_loss_frac=loss)
    usable = np.array([usable_frac(m, grind_loss_frac=loss) for m in program.meats])
    swaps: tuple[SwapPrice, ...] = ()
    if full.aim == "cheapest":
        prices = [inventory.price_of(c.meat, c.lot) for c in full.candidates]
        swaps = swap_prices(program, usable=usable, prices=prices)

    def solved(asked: Wish) -> tuple[Answer, ...]:
        return solve(
            asked, inventory=inventory, batch_mass_g=batch_g, step_g=kitchen.scale.step_g, grind_loss_frac=loss
        )

    try:
        found = solved(full)
    except NoBlendError:
        return Solved((), nearest_changes(program, batch_mass_g=batch_g), swaps)
    sureness: tuple[Phrase, ...] = ()
    if full.confidence_frac > 0.0 and full.aim == "cheapest":
        # What certainty costs is the difference to the cheapest blend that does without it.
        sureness = price_of_certainty(found[0], solved(replace(full, confidence_frac=0.0))[0], wish=full)
    answers = [SolvedAnswer(a, _binding(program, a)) for a in found]
    answers[0] = replace(answers[0], binding=(*answers[0].binding, *sureness))
    return Solved(tuple(answers), (), swaps)


def _binding(program: Program, answer: Answer) -> tuple[Phrase, ...]:
    shares = dict(zip(answer.meats, answer.shares_frac, strict=True))
    at = [shares.get(meat.key, 0.0) for meat in program.meats]
    return binding_limits(program, at, priced=program.wish.aim == "cheapest")


@dataclass(frozen=True, slots=True)
class DrawnSquare:
    """The square with the names of its two meats, the leaner one first, and grams for the batch."""

    lean: str
    lean_name: str
    rich: str
    rich_name: str
    square: PearsonSquare


def square_for(one: Candidate, two: Candidate, target: str) -> DrawnSquare:
    """The Pearson square of two meats, in whichever order they are named."""
    inventory, _ = context()
    lean, rich = sorted((one, two), key=lambda c: inventory.fat_of(c.meat, c.lot).usual_frac)
    square = pearson_square(
        lean_fat_frac=inventory.fat_of(lean.meat, lean.lot).usual_frac,
        rich_fat_frac=inventory.fat_of(rich.meat, rich.lot).usual_frac,
        target_frac=read_frac(target, field="/target"),
    )
    return DrawnSquare(lean.meat, inventory.meat(lean.meat).name, rich.meat, inventory.meat(rich.meat).name, square)


def first_square_for(formula: Formula) -> FirstSquare:
    """The square that a cook of this formula is shown first."""
    inventory, kitchen = context()
    now = evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    return first_square(
        [(part.meat, part.fat_usual_frac) for part in now.blend.parts],
        blend_fat_frac=now.blend.fat_frac,
        usual_frac=now.style.fat_band_frac,
    )


def mend(
    *, batch: str, fat: str, target: str, candidates: list[Candidate], unit_system: UnitSystem
) -> tuple[Addition, ...]:
    """What to add to a batch, from these candidates or, without any, from the whole larder of its species: beef."""
    inventory, kitchen = context()
    asked = [(c.meat, c.lot) for c in candidates] or [
        (m.key, "")
        for m in inventory.meats.values()
        if m.species == "beef" and not m.retired and m.key != "mince-unknown"
    ]
    return additions(
        batch_mass_g=read_mass_g(batch, unit_system=unit_system, field="/batch"),
        fat_frac=read_frac(fat, field="/fat"),
        target_frac=read_frac(target, field="/target"),
        candidates=asked,
        inventory=inventory,
        step_g=kitchen.scale.step_g,
    )


@dataclass(frozen=True, slots=True)
class Proposed:
    """A formula made from words of taste, evaluated, with the reasons."""

    proposal: Proposal
    formula: Formula
    evaluation: Evaluation


def propose_for(formula: Formula, words: str) -> Proposed:
    """The formula with the style, the school and the fat that the words ask for; guests and locks stay."""
    inventory, kitchen = context()
    if not words.strip():
        raise OutOfRangeError("Say how it should eat: rich, loose, crusty; thick and beefy; lean.", field="/words")
    proposal = propose(words)
    # Words of taste are of burgers: they choose among their styles, and never turn a loaf into one.
    edits = [Choose("school", proposal.school)]
    if formula.dish.dish == "burger":
        edits.insert(0, Choose("style", proposal.style))
    for edit in edits:
        formula = apply_edit(formula, edit, inventory=inventory, kitchen=kitchen)
    formula = _aimed(
        formula, proposal, inventory, evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    )
    return Proposed(proposal, formula, evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE))


def _aimed(formula: Formula, proposal: Proposal, inventory: Inventory, now: Evaluation) -> Formula:
    """The school's meats, nearest to its shares, at the fat wanted; unchanged when they cannot reach it."""
    _, kitchen = context()
    extra = [m for m in ("trim-50", "round") if m in inventory.meats and all(p.meat != m for p in formula.parts)]
    candidates = tuple(
        Candidate(p.meat, p.lot, p.share_frac if p.locked else 0.0, p.share_frac if p.locked else 1.0, p.share_frac)
        for p in formula.parts
    ) + tuple(Candidate(m) for m in extra)
    aim = proposal.fat_aim_frac
    wish = Wish(
        candidates,
        max(0.0, aim - AIM_HALF_WIDTH_FRAC),
        min(1.0, aim + AIM_HALF_WIDTH_FRAC),
        aim="nearest",
        use_stock=False,
    )
    try:
        best = solve(
            wish,
            inventory=inventory,
            batch_mass_g=now.blend.batch_mass_g,
            step_g=kitchen.scale.step_g,
            grind_loss_frac=now.grind.loss_frac,
        )[0]
    except NoBlendError:
        return formula
    return apply_edit(formula, LayOut(best.meats, best.shares_frac), inventory=inventory, kitchen=kitchen)


def _remembered() -> tuple[Question, ...]:
    """What to ask of someone who wants the burger they remember; each answer is a change."""
    return (
        Question(
            say("Was it thin and crusty, or thick and pink?"),
            say("The style decides weight, thickness, fire and time."),
            (
                Change(say("Thin and crusty"), Choose("style", "smashed")),
                Change(say("Thick"), Choose("style", "thick")),
                Change(say("From the grill"), Choose("style", "grilled")),
            ),
            0.5,
        ),
        Question(
            say("Did it drip, or was it plain?"),
            say("A fatty partner drips; one cut alone is plain; steak trim tastes of the steakhouse."),
            (
                Change(say("It dripped"), Choose("school", "chuck-and-partner")),
                Change(say("Plain"), Choose("school", "all-chuck")),
                Change(say("Like steak"), Choose("school", "steakhouse")),
            ),
            0.3,
        ),
    )


def open_or_propose(line: str, *, unit_system: UnitSystem | None = None) -> tuple[Opening, Evaluation | None]:
    """A first formula from one line: of what there is, or else of how it should eat."""
    try:
        return open_line_here(line, unit_system=unit_system)
    except UnreadableEntryError as unread:
        try:
            proposal = propose(line)
        except UnreadableEntryError:
            raise unread from None
    start, _ = open_line_here(DEFAULT_LINE, unit_system=unit_system)
    assert start.formula is not None
    done = propose_for(start.formula, line)
    title = style_of(proposal.style).title
    inventory, kitchen = context(unit_system)
    opening = Opening(
        text=" ".join(line.split()),
        formula=replace(done.formula, name=f"{title}, {school_of(proposal.school).title.lower()}"[:LONGEST_NAME]),
        pieces=read_line(" ".join(line.split()), inventory=inventory, kitchen=kitchen).pieces,
        assumed=(
            *(say(reason) for reason in proposal.reasons),
            say("{style} burgers for 4 people", style=word(title)),
            say(
                "{school}, at about {fat} fat",
                school=word(school_of(proposal.school).title),
                fat=frac(proposal.fat_aim_frac),
            ),
        ),
        remarks=(),
        asks=(),
        questions=_remembered() if proposal.asks else (),
    )
    return opening, done.evaluation
