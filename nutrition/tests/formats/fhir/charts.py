"""Clients made up for the tests of FHIR."""

from datetime import date, timedelta

from hypothesis import strategies as st

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount
from nutrition.formats.fhir.chart import Chart, Intake, LabValue, Limit, Taken, Weight
from nutrition.targets.blood import BadValue, Measured, analytes, check_value

DAYS = st.dates(date(2000, 1, 1), date(2026, 12, 1))
WORDS = st.text(st.characters(exclude_categories=("Cs", "Cc", "Z")), min_size=1, max_size=20)
KEYS = st.sampled_from(sorted(key for key, one in NUTRIENT.items() if one.group != "indices"))
NUMBERS = st.floats(0, 1e5, allow_nan=False).map(lambda one: round(one, 3))


@st.composite
def amounts(draw) -> Amount:
    value = draw(NUMBERS)
    lines = draw(st.integers(0, 9))
    return Amount(
        amount=value,
        low=value * draw(st.floats(0, 1)),
        high=value * draw(st.floats(1, 2)),
        known=draw(st.floats(0, 1)),
        unknown_lines=draw(st.integers(0, lines)),
        lines=lines,
        missing=draw(st.integers(0, 2)),
        could_add=draw(st.one_of(st.just(float("inf")), NUMBERS)),
    )


@st.composite
def values(draw) -> LabValue:
    key = draw(st.sampled_from(sorted(analytes())))
    one = analytes()[key]
    unit = draw(st.sampled_from(one.units))
    value = draw(st.floats(0.01, 500).map(lambda number: round(number, 2)))
    try:
        check_value(key, value, unit)
    except BadValue:
        # the middle of what anybody is taken for, in the unit that is compared in
        unit, value = one.unit, round(sum(one.possible) / 2, 2)
    low = draw(st.one_of(st.none(), st.just(round(value / 2, 3))))
    high = draw(st.one_of(st.none(), st.just(round(value * 2, 3))))
    measured = Measured(key=key, value=value, unit=unit, on=draw(DAYS), low=low, high=high)
    return LabValue(
        measured=measured,
        laboratory=draw(st.one_of(st.just(""), WORDS)),
        remark=draw(st.one_of(st.just(""), WORDS)),
    )


@st.composite
def limits(draw) -> Limit:
    by = draw(st.one_of(st.just(""), WORDS))
    low, aim, high = (draw(st.one_of(st.none(), NUMBERS)) for _ in range(3))
    return Limit(
        key=draw(KEYS),
        low=low,
        aim=aim if (low, high) != (None, None) else aim or 1.0,
        high=high,
        by=by,
        license=draw(st.one_of(st.just(""), WORDS)) if by else "",
        reason=draw(st.one_of(st.just(""), WORDS)),
    )


def _apart(rows: list, of) -> tuple:
    """One of each, in the order of a chart."""
    return tuple({of(one): one for one in rows}.values())


@st.composite
def charts(draw) -> Chart:
    born = draw(st.one_of(st.none(), DAYS))
    year = born.year if born else draw(st.one_of(st.none(), st.integers(1900, 2026)))
    tall = draw(st.one_of(st.none(), st.floats(60, 230).map(lambda one: round(one, 1))))
    weights = st.builds(Weight, on=DAYS, kg=st.floats(25, 300).map(lambda one: round(one, 2)))
    taken = st.builds(
        Taken,
        key=KEYS,
        dose=NUMBERS.filter(bool),
        form=st.one_of(st.just(""), WORDS),
        per_week=st.sampled_from([1.0, 2.0, 3.5, 7.0, 14.0, 0.25]),
    )
    intakes = st.builds(
        Intake,
        on=DAYS,
        whole=st.booleans(),
        amounts=st.dictionaries(KEYS, amounts(), max_size=3),
        foods=st.lists(WORDS, max_size=3).map(tuple),
    )
    rows = draw(st.lists(values(), max_size=6))
    return Chart(
        identifier=draw(st.uuids()).hex,
        name=draw(WORDS),
        sex=draw(st.sampled_from(["female", "male"])),
        birth_date=born,
        birth_year=year,
        height_cm=tall,
        measured_on=draw(DAYS) if tall is not None else None,
        weights=tuple(sorted(draw(st.lists(weights, max_size=4)), key=lambda one: one.on)),
        values=tuple(
            sorted(
                _apart(rows, lambda one: (one.measured.key, one.measured.on)),
                key=lambda one: (one.measured.on, one.measured.key),
            )
        ),
        allergies=tuple(draw(st.lists(WORDS, max_size=3, unique=True))),
        textures=tuple(draw(st.lists(WORDS, max_size=2))),
        diet=draw(st.one_of(st.just(""), WORDS)),
        goal=draw(st.one_of(st.just(""), WORDS)),
        limits=tuple(draw(st.lists(limits(), max_size=5))),
        supplements=tuple(draw(st.lists(taken, max_size=3))),
        intakes=tuple(
            sorted(
                _apart(draw(st.lists(intakes, max_size=3)), lambda one: one.on),
                key=lambda one: one.on,
            )
        ),
    )


def usual() -> Chart:
    """A client with one of everything."""
    on = date(2026, 11, 8)
    return Chart(
        identifier="7",
        name="Ilse Varga-Holm",
        sex="female",
        birth_date=date(1954, 3, 2),
        birth_year=1954,
        height_cm=164.0,
        measured_on=on,
        weights=(Weight(on=on - timedelta(days=7), kg=61.9), Weight(on=on, kg=61.7)),
        values=(
            LabValue(measured=Measured(key="diastolic", value=78, unit="mmHg", on=on)),
            LabValue(
                measured=Measured(
                    key="potassium", value=5.6, unit="mmol/L", on=on, low=3.5, high=5.1
                ),
                laboratory="Harbor laboratory",
                remark="not hemolyzed",
            ),
            LabValue(measured=Measured(key="systolic", value=142, unit="mmHg", on=on)),
        ),
        allergies=("sesame",),
        textures=("soft texture only",),
        diet="whole-food plant-based diet",
        goal="hold weight",
        target_kg=61.0,
        limits=(
            Limit(key="protein_g", low=30, aim=32, high=36, reason="kidney disease, stage 3b"),
            Limit(
                key="potassium_mg",
                high=2000,
                by="Dr. Solveig",
                license="MD, nephrology",
                reason="letter of November 10",
            ),
        ),
        supplements=(Taken(key="vitamin_b12_ug", dose=1000, form="cyanocobalamin", per_week=2),),
        intakes=(
            Intake(
                on=on,
                whole=True,
                amounts={
                    "protein_g": Amount(
                        amount=31.0, low=28.0, high=34.0, known=0.9, unknown_lines=1, lines=9
                    )
                },
                foods=("1 bowl Barley pot",),
            ),
        ),
    )
