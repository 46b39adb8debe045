"""The tables as peewee models. Nothing outside ``storage`` sees these; repositories return records."""

from __future__ import annotations

from peewee import (
    AutoField,
    BlobField,
    BooleanField,
    CharField,
    CompositeKey,
    DateTimeField,
    DecimalField,
    DoubleField,
    ForeignKeyField,
    IntegerField,
    Model,
    TextField,
)

from vianda.storage.database import proxy


class Table(Model):
    """Base of all tables."""

    class Meta:
        database = proxy
        legacy_table_names = False


class RevisionRow(Table):
    """A counter that grows with each change of a shared thing, so that caches know when they are stale."""

    name = CharField(max_length=32, primary_key=True)
    number = IntegerField()

    class Meta:
        table_name = "revision"


class AnsweredRow(Table):
    """The answer to a write, by the token it came with."""

    token = CharField(max_length=80, primary_key=True)
    request = CharField(max_length=64)
    status = IntegerField()
    body = TextField()
    at = DateTimeField()

    class Meta:
        table_name = "answered"


class KitchenRow(Table):
    """A kitchen, as its JSON document. ``chosen`` is highest for the one opened last; a demo may be deleted."""

    id = AutoField()
    document = TextField()
    revision = IntegerField()
    demo = BooleanField(default=False)
    chosen = IntegerField(default=0)

    class Meta:
        table_name = "kitchen"


class MeatRow(Table):
    """A meat of the larder."""

    kitchen_id = IntegerField()
    key = CharField(max_length=64)
    position = IntegerField()
    name = CharField(max_length=80)
    species = CharField(max_length=16)
    kind = CharField(max_length=16)
    water_g_per_100g = DoubleField()
    protein_g_per_100g = DoubleField()
    fat_g_per_100g = DoubleField()
    carbohydrate_g_per_100g = DoubleField()
    ash_g_per_100g = DoubleField()
    sodium_mg_per_100g = DoubleField()
    sugars_g_per_100g = DoubleField()
    composition_note = CharField(max_length=300)
    fat_low_frac = DoubleField()
    fat_usual_frac = DoubleField()
    fat_high_frac = DoubleField()
    price_per_kg = DecimalField(max_digits=12, decimal_places=4, auto_round=False)
    range_source = CharField(max_length=200)
    remark = CharField(max_length=500)
    connective = CharField(max_length=16)
    cured = BooleanField()
    trim_loss_frac = DoubleField()
    pack_mass_g = DoubleField()
    retired = BooleanField()

    class Meta:
        table_name = "meat"
        primary_key = CompositeKey("kitchen_id", "key")


class LotRow(Table):
    """A delivery of a meat, as its JSON document. Never deleted: old formulas name it."""

    kitchen_id = IntegerField()
    key = CharField(max_length=64)
    meat = CharField(max_length=64)
    document = TextField()
    revision = IntegerField()

    class Meta:
        table_name = "lot"
        primary_key = CompositeKey("kitchen_id", "key")


class IngredientRow(Table):
    """A thing of the pantry, as its JSON document. Never deleted: old formulas name it."""

    kitchen_id = IntegerField()
    key = CharField(max_length=64)
    position = IntegerField()
    document = TextField()
    revision = IntegerField()

    class Meta:
        table_name = "ingredient"
        primary_key = CompositeKey("kitchen_id", "key")


class FormulaRow(Table):
    """A formula as it stands; ``revision`` guards against lost edits, and by ``words`` (folded) it is found."""

    id = AutoField()
    kitchen_id = IntegerField()
    name = CharField(max_length=80)
    document = TextField()
    revision = IntegerField()
    created_at = DateTimeField()
    updated_at = DateTimeField()
    deleted = BooleanField(default=False)
    dish = CharField(max_length=40)
    style = CharField(max_length=60)
    words = TextField()
    changed_by = CharField(max_length=40, default="")

    class Meta:
        table_name = "formula"


class ShelfFigureRow(Table):
    """What a formula came to, in JSON, and a stamp of all it was worked out of."""

    formula_id = IntegerField(primary_key=True)
    stamp = CharField(max_length=64)
    comes_to = TextField()
    problem = TextField()

    class Meta:
        table_name = "shelf_figure"


class VersionRow(Table):
    """A version the cook said to keep. Never changed afterwards."""

    id = AutoField()
    formula = ForeignKeyField(FormulaRow, column_name="formula_id", on_delete="RESTRICT")
    number = IntegerField()
    name = CharField(max_length=80)
    document = TextField()
    created_at = DateTimeField()
    kept_by = CharField(max_length=40, default="")

    class Meta:
        table_name = "formula_version"


class CookRow(Table):
    """One run of a formula: what was planned, and what came of it."""

    id = AutoField()
    kitchen_id = IntegerField()
    formula = ForeignKeyField(FormulaRow, column_name="formula_id", on_delete="RESTRICT")
    formula_name = CharField(max_length=80)
    document = TextField()
    plan = TextField()
    started_at = DateTimeField()
    finished_at = DateTimeField(null=True)
    outcome = TextField(null=True)
    revision = IntegerField()
    begun_by = CharField(max_length=40, default="")
    noted_by = CharField(max_length=40, default="")

    class Meta:
        table_name = "cook"


class CookLineRow(Table):
    """A cook as the logbook lists and finds it; ``words`` are folded."""

    cook_id = IntegerField(unique=True)
    kitchen_id = IntegerField()
    formula_id = IntegerField()
    formula_name = CharField(max_length=80)
    dish = CharField(max_length=40)
    started_at = DateTimeField()
    finished_at = DateTimeField(null=True)
    pieces = IntegerField()
    piece_mass_g = DoubleField()
    batch_mass_g = DoubleField()
    fat_frac = DoubleField()
    score = DoubleField(null=True)
    remark = CharField(max_length=200)
    words = TextField()

    class Meta:
        table_name = "cook_line"
        primary_key = CompositeKey("kitchen_id", "started_at", "cook_id")


class CookLotRow(Table):
    """A lot that went into a cook."""

    cook_id = IntegerField()
    kitchen_id = IntegerField()
    lot = CharField(max_length=64)
    name = CharField(max_length=200)
    meat = CharField(max_length=64)
    mass_g = DoubleField()
    use_by = CharField(max_length=10)

    class Meta:
        table_name = "cook_lot"
        primary_key = CompositeKey("cook_id", "lot")


class ObservationRow(Table):
    """What a cook says of one figure that is learnt: what was observed and forecast, and the factor it asks for.

    Of minutes a service under way says it: ``cook_id`` is the run's number then, ``piece`` the task's place.
    """

    kitchen_id = IntegerField()
    figure = CharField(max_length=16)
    cook_id = IntegerField()
    piece = IntegerField()
    style = CharField(max_length=64)
    surface = CharField(max_length=64)
    at = DateTimeField()
    observed = DoubleField()
    low = DoubleField()
    usual = DoubleField()
    high = DoubleField()
    value = DoubleField()
    sd = DoubleField()
    aside = BooleanField(default=False)
    task = CharField(max_length=40, default="")

    class Meta:
        table_name = "observation"
        primary_key = CompositeKey("kitchen_id", "figure", "cook_id", "piece")


class CookEventRow(Table):
    """Something that happened at the stove. ``token`` makes a repeated report count once."""

    id = AutoField()
    cook = ForeignKeyField(CookRow, column_name="cook_id", on_delete="CASCADE")
    token = CharField(max_length=40)
    kind = CharField(max_length=16)
    place = IntegerField()
    value = DoubleField(null=True)
    at = DateTimeField()

    class Meta:
        table_name = "cook_event"


class ServiceRow(Table):
    """What is served together, as its JSON document; ``first_day`` and ``last_day`` are those it may come on."""

    id = AutoField()
    kitchen_id = IntegerField()
    document = TextField()
    revision = IntegerField()
    updated_at = DateTimeField()
    first_day = CharField(max_length=10, default="")
    last_day = CharField(max_length=10, default="")
    changed_by = CharField(max_length=40, default="")

    class Meta:
        table_name = "service"


class TastingRow(Table):
    """A blind tasting, as its JSON document."""

    id = AutoField()
    kitchen_id = IntegerField()
    formula_id = IntegerField()
    document = TextField()
    revision = IntegerField()
    created_at = DateTimeField()

    class Meta:
        table_name = "tasting"


class PhotographRow(Table):
    """A photograph of a cook: what is kept of it, and a small one for lists, both JPEG."""

    id = AutoField()
    kitchen_id = IntegerField()
    cook_id = IntegerField()
    caption = CharField(max_length=120)
    width = IntegerField()
    height = IntegerField()
    at = DateTimeField()
    jpeg = BlobField()
    small = BlobField()

    class Meta:
        table_name = "photograph"


class TrainingAnswerRow(Table):
    """A round of the trainer that was answered; ``token`` makes a repeat count once."""

    id = AutoField()
    kitchen_id = IntegerField()
    token = CharField(max_length=40)
    kind = CharField(max_length=16)
    correct = BooleanField()
    confidence = DoubleField()
    at = DateTimeField()

    class Meta:
        table_name = "training_answer"


class StockedRow(Table):
    """What is kept of one thing, as its JSON document."""

    id = AutoField()
    kitchen_id = IntegerField()
    kind = CharField(max_length=10)
    item_key = CharField(max_length=64)
    document = TextField()

    class Meta:
        table_name = "stocked"


class TickRow(Table):
    """One line of a list that is ticked, and how much it was then."""

    id = AutoField()
    kitchen_id = IntegerField()
    sheet = CharField(max_length=60)
    line = CharField(max_length=200)
    amount = DoubleField(null=True)

    class Meta:
        table_name = "tick"


class RunRow(Table):
    """A service as it was cooked on one day."""

    id = AutoField()
    kitchen_id = IntegerField()
    service_id = IntegerField()
    day = CharField(max_length=10)
    started_at = DateTimeField()
    name = CharField(max_length=200, default="")
    ready_min = IntegerField(null=True)
    # The number of what was said last when its minutes were taken down.
    learnt = IntegerField(default=0)

    class Meta:
        table_name = "run"


class RunEventRow(Table):
    """What was said of a task in a run, or measured. ``token`` makes a repeat count once."""

    id = AutoField()
    run = ForeignKeyField(RunRow, column_name="run_id", on_delete="CASCADE")
    token = CharField(max_length=40)
    kind = CharField(max_length=16)
    task = CharField(max_length=120)
    minute = IntegerField()
    value = IntegerField(null=True)
    of_token = CharField(max_length=40)
    at = DateTimeField()
    check_key = CharField(max_length=140, default="")
    temp_c = DoubleField(null=True)
    who = CharField(max_length=40, default="")
    remark = CharField(max_length=200, default="")

    class Meta:
        table_name = "run_event"


class WeighingRow(Table):
    """A run of check-weighing: what was planned, and the seed of its simulated scale."""

    id = AutoField()
    kitchen_id = IntegerField()
    formula = ForeignKeyField(FormulaRow, column_name="formula_id", on_delete="RESTRICT")
    formula_name = CharField(max_length=80)
    plan = TextField()
    seed = IntegerField()
    started_at = DateTimeField()
    finished_at = DateTimeField(null=True)
    # What was left in the bowl when all were portioned, weighed; NULL: nobody did.
    left_g = DoubleField(null=True)
    begun_by = CharField(max_length=40, default="")

    class Meta:
        table_name = "weighing"


class WeighingEventRow(Table):
    """Something done to the scale or to the record. ``token`` makes a repeated report count once."""

    id = AutoField()
    weighing = ForeignKeyField(WeighingRow, column_name="weighing_id", on_delete="CASCADE")
    token = CharField(max_length=40)
    kind = CharField(max_length=16)
    value = DoubleField(null=True)
    about = IntegerField(null=True)
    at_s = DoubleField()

    class Meta:
        table_name = "weighing_event"


class PersonRow(Table):
    """Somebody who may sign in; by ``folded`` a name is found and stands once."""

    id = AutoField()
    name = CharField(max_length=40)
    folded = CharField(max_length=120)
    role = CharField(max_length=8)
    password_hash = CharField(max_length=200, default="")
    pin_hash = CharField(max_length=200, default="")
    disabled = BooleanField(default=False)
    created_at = DateTimeField()

    class Meta:
        table_name = "person"


class SignedInRow(Table):
    """Where somebody is signed in, by the digest of a token; a device of a shift has nobody."""

    token_hash = CharField(max_length=64, primary_key=True)
    person_id = IntegerField(null=True)
    kind = CharField(max_length=8)
    device = CharField(max_length=80)
    by_device = CharField(max_length=64, default="")
    wrong = IntegerField(default=0)
    created_at = DateTimeField()
    seen_at = DateTimeField()
    ends_at = DateTimeField()

    class Meta:
        table_name = "signed_in"


class InvitationRow(Table):
    """A one-time link, by the digest of its token."""

    token_hash = CharField(max_length=64, primary_key=True)
    name = CharField(max_length=40)
    role = CharField(max_length=8)
    person_id = IntegerField(null=True)
    created_at = DateTimeField()
    ends_at = DateTimeField()
    used_at = DateTimeField(null=True)

    class Meta:
        table_name = "invitation"


class AuditRow(Table):
    """Who changed what."""

    id = AutoField()
    at = DateTimeField()
    person_id = IntegerField(null=True)
    person = CharField(max_length=40)
    kitchen_id = IntegerField(null=True)
    action = CharField(max_length=60)
    about = CharField(max_length=120)

    class Meta:
        table_name = "audit"
