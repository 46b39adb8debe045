"""No table changes: from here on the starter pantry holds what is cooked beside the meat, and kitchens take it up."""

STATEMENTS: tuple[str, ...] = ()
