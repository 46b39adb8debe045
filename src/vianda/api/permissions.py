"""The least role for each operation that changes something; what only reads or computes is everybody's who is in."""

from __future__ import annotations

from collections.abc import Mapping

from vianda.storage.people_repository import Role

# Asked before anybody is signed in.
OPEN = frozenset(
    {
        "live", "ready", "authority_certificate", "get_session", "sign_in",
        "first_owner", "take_up_shift", "look_at_invitation", "accept_invitation",
    }
)  # fmt: skip

# Of one's own account, by whoever is signed in.
OWN = frozenset({"sign_out", "end_shift", "change_password", "set_pin", "list_places", "end_place"})

_COOK = (
    "note_kitchen_check", "begin_cook", "note_event", "save_outcome", "add_photograph", "caption_photograph",
    "delete_photograph", "receive", "add_lot", "log_fat_test", "learn", "note_pot", "open_run", "note_run_event",
    "set_tick", "begin_weighing", "act", "note_leftover", "answer_tasting", "answer_round", "begin_anew",
    "open_kitchen", "begin_shift",
)  # fmt: skip
_CHEF = (
    "create_formula", "import_formula", "delete_formula", "save_formula", "copy_formula", "restore_formula",
    "set_up_tasting", "keep_version", "keep_recipe", "save_kitchen", "import_csv", "save_lot", "forget", "save_meat",
    "set_observation_aside", "use_factor", "use_fat", "import_pantry_csv", "save_ingredient", "create_service",
    "import_service", "delete_service", "save_service", "keep_stocked", "look_at_archive",
)  # fmt: skip
_OWNER = (
    "set_up_kitchen", "look_round", "delete_kitchen", "bring_archive", "list_people", "invite", "invite_again",
    "change_role", "disable_person", "remove_person", "read_audit", "list_all_places", "end_any_place",
)  # fmt: skip

_LEAST: tuple[tuple[Role, tuple[str, ...]], ...] = (("cook", _COOK), ("chef", _CHEF), ("owner", _OWNER))
WRITES: Mapping[str, Role] = {operation: role for role, operations in _LEAST for operation in operations}
# A whole kitchen with all that was ever written leaves by it.
READS: Mapping[str, Role] = {"kitchen_archive": "chef"}

# What is sent by POST only because it is too long for an address: it reads or computes, and changes nothing.
COMPUTES = frozenset(
    {
        "butcher", "carried", "kitchen_checks", "look_for_fault", "simulated_reading", "covers", "evaluate",
        "compare_versions", "after", "ask", "curve", "firming", "probe", "signs", "surface", "ways", "read_fat_test",
        "look_through_logbook", "logbook_trends", "opening", "orders", "read_amount", "try_house", "span_prep", "read",
        "read_mix", "read_recipe", "bind", "brine", "compose", "ferment", "nudge", "pot", "poured", "scale", "shaker",
        "swaps", "taste", "thicken", "tray", "busy_cook", "edit_service", "container_labels", "plan_service", "set_out",
        "service_under_way", "check_sheet", "follow_run", "sheets", "look_along_shelf", "span_shopping", "scarcity",
        "short_of_time", "mend", "merge_edits", "propose", "solve", "square", "first_square", "timetable",
    }
)  # fmt: skip


def least_role(operation: str) -> Role:
    """The least role for an operation."""
    return WRITES.get(operation) or READS.get(operation) or "reader"
