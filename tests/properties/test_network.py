"""The air network: balances over random builds, limits of its gaps, and the orderings every builder knows."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq

from keelroom.assess.assess import assess
from keelroom.catalogue.load import cores, fan_assemblies, named
from keelroom.core.air import face
from keelroom.core.air.fan import fan_pressure
from keelroom.core.coolers.exchange import car_coolers
from keelroom.core.coupling import NOWHERE, car_rows, prepare
from keelroom.core.joint.car import CarAir, solve_airs
from keelroom.core.kept import Kept
from keelroom.core.operating_point import face_heat, looked_at, solve
from keelroom.document.edits import Change, Edit, apply, set_value
from keelroom.document.quantity import quantity
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Shroud
from keelroom.document.schema.panels import Sealing
from tests.changes import sealed, varied
from tests.properties.test_facts import BUILD, CASES, CORE, FANS, airflow, outlet, package, point

LONG = "length"
BIG = named(cores(), "Crossflow 28 × 19, 2 row, dimpled tube, aluminium")


def fan(start):
    return next(a for a in fan_assemblies() if a.name.startswith(start))


def inches(text):
    return quantity(f"{text} in", LONG)


TWIN, SIXTEEN = fan("Twin 12 in straight"), fan("16 in curved")


def shroud(**changes):
    return Shroud(**changes)


@st.composite
def packs(draw):
    """Random packages with shroud or none, divided or shared, gaps, flaps, covers, stopped and pushing fans."""
    kind = draw(st.sampled_from(("full", "partial", "none")))
    made = shroud(
        kind=kind,
        width=inches(draw(st.sampled_from((8, 12, 16)))),
        edge_gap=inches(draw(st.sampled_from(("0", "1/16", "1/4")))),
        flap_area=quantity(f"{draw(st.sampled_from((0, 30)))} in²", "area"),
        plenum=draw(st.sampled_from(("shared", "divided"))),
        depth=inches(draw(st.sampled_from((1, 3)))),
    )
    pack = package(draw(CORE), draw(FANS), made)
    fans = tuple(
        f.model_copy(
            update={"runs": draw(st.booleans()), "mount": draw(st.sampled_from(("puller", "puller", "pusher")))}
        )
        for f in pack.fans
    )
    covers = draw(
        st.sampled_from(
            (
                (),
                (Cooler(id="c"),),
                (Cooler(id="c"), Cooler(id="g", kind="gearbox_cooler", width=inches(9), height=inches(6))),
                (
                    Cooler(id="i", kind="charge_cooler", height=inches(7)),
                    Cooler(id="o", kind="oil_cooler", left=inches(3), width=inches(5)),
                ),
            )
        )
    )
    return pack.model_copy(update={"fans": fans, "coolers": covers})


def node_balance(points, flows):
    """What leaves every node less what arrives, rebuilt from the named flows."""
    branches = np.concatenate(
        [
            [flows.grille[0], flows.exit[0], flows.bypass[0]],
            flows.leaks[0],
            flows.flaps[0],
            flows.core[0],
            flows.fans[0],
        ]
    )
    return points.plant.network.incidence[0].T @ branches, np.abs(branches).max()


def cooler_heat(points, fixed):
    """What each cooler gives the air while the path past running fans is solved [W]."""
    car = car_rows(points, fixed.surfaces, fixed.surface, fixed.air, fixed.outdoor_density)
    path, air = CarAir(car, car_coolers(points.plant.coolers)), fixed.running
    asked = np.array([[air.power[0], 0.0, 1.0, 1.0, 1.0]])
    room = (np.empty((1, size)) for size in (2 * path.count, path.nodes, 6, 14))
    assert solve_airs(path, np.arange(1), air.speed, asked, NOWHERE, *room)[0]
    return np.array(path.coolers.heat)


@given(packs(), st.sampled_from(sorted(CASES)))
def test_mass_and_enthalpy_close_in_every_node(pack, case):
    points, _, layout = point(pack, case)
    solution = solve(points, layout)
    fixed = solution.fixed
    cp = 1006.5 + fixed.air.vapour[0] * 860.0
    for air in (fixed.running, fixed.stopped):
        left, scale = node_balance(points, air.flows)
        assert np.abs(left).max() <= 1e-9 + 1e-8 * scale
    air = fixed.running
    flows, breath = air.flows, air.breath
    if float(flows.exit[0]) < 0.02:
        return  # hardly any air: its temperature is held at a ceiling on purpose
    grille = float(points.situation.climate.ambient[0] + points.situation.climate.grille_rise[0])
    # Front plenum: fresh and returned air mix.
    back = float(flows.back[0])
    mixed = (flows.grille[0] * grille + back * breath.bay_temperature[0]) / (flows.grille[0] + back)
    assert float(breath.front_temperature[0]) == pytest.approx(mixed, rel=1e-9)
    # The whole bay: all heat given leaves with the air (up to the ceiling kept for still air, undone here).
    coolers = points.plant.coolers
    heat = cooler_heat(points, fixed)
    bay_side = float((heat * np.maximum(coolers.ahead, coolers.into_bay)[0]).sum())
    given_heat = air.into_coolant[0] + bay_side + air.heat.bay[0] + air.power[0]
    free = given_heat / (max(flows.exit[0], 1e-3) * cp)
    assert breath.bay_temperature[0] - grille == pytest.approx(free * (1 + (free / 400.0) ** 4) ** -0.25, rel=1e-9)
    assert free > 150 or breath.bay_temperature[0] - grille == pytest.approx(free, rel=6e-3), "the books close"
    # Core, cell by cell: what the coolant loses is what the air gains.
    state = solution.state
    met = face_heat(points, fixed, layout, float(state.temperature[0]), looked_at(np.arange(1)))
    assert float((met.capacity * (met.air_out - met.temperature)).sum()) == pytest.approx(met.heat, rel=1e-9)
    if solution.settles[0]:
        assert met.heat == pytest.approx(float(state.given[0]), rel=1e-6), (
            "what the coolant is given the core gives off"
        )


@given(packs(), st.sampled_from(("idle", "cruise")))
def test_every_branch_loses_what_its_nodes_differ_by(pack, case):
    points, _, layout = point(pack, case)
    assert prepare(points, layout).running.flows.residual < 1e-7


def test_one_cell_network_is_brentq_on_the_same_curves():
    """A full sealed shroud, no gap anywhere, one fan, standing: fan curve against core, grille and exit, by scipy's
    brentq."""
    pack = package(BIG, SIXTEEN, shroud(edge_gap=inches(0), depth=inches(14)))
    pack = pack.model_copy(update={"coolers": (), "sealing": sealed(0)})
    points, _, layout = point(pack, "idle")
    fixed = prepare(points, layout)
    flows, breath, net = fixed.running.flows, fixed.running.breath, points.plant.network
    from keelroom.core.fluids.air import viscosity
    from keelroom.core.thermal.louver import core_drop

    mu = viscosity(0.5 * (breath.front_temperature + breath.behind_temperature))
    area = net.area[0].sum()

    def gap(m):
        air = (breath.ahead[:, None], mu[:, None], (breath.ahead / breath.behind)[:, None])
        through = core_drop(points.plant.core, fixed.surfaces, fixed.surface, np.array([[m / area]]), air)[0, 0]
        corners = float((net.loss[0] * net.area[0]).sum() / area)
        assert corners < 0.05, "so deep a shroud has next to no corner loss"
        rise, _ = fan_pressure(
            points.plant.fans.curve, np.array([[m / breath.behind[0]]]), fixed.running.speed, breath.behind[:, None]
        )
        ends = 1.5 / (2 * breath.ahead[0] * net.grille_area[0] ** 2) + 1.8 / (2 * breath.bay[0] * net.exit_area[0] ** 2)
        return rise[0, 0] - through - ends * m * m

    assert float(flows.fans[0, 0]) == pytest.approx(brentq(gap, 1e-3, 3.0, xtol=1e-12), rel=0.003)


def test_gaps_at_their_limits():
    """Zero gap leaks nothing; a gap without end takes all the suction: the fan draws from the bay and the core gets
    none."""
    tight = package(BIG, TWIN, shroud(edge_gap=inches(0))).model_copy(update={"sealing": sealed(0)})
    flows = prepare(*(point(tight)[0], point(tight)[2])).running.flows
    assert float(flows.bypass[0]) == float(flows.leaks.sum()) == float(flows.back[0]) == 0.0
    points, _, layout = point(tight)
    open_wide = varied(points, {"plant.network.leak_area": np.full_like(points.plant.network.leak_area, 3.0)})
    assert float(prepare(open_wide, layout).running.flows.core[0].sum()) < 0.03 * float(flows.core[0].sum())


@pytest.mark.parametrize("case", ["cruise", "grade"])
def test_a_wide_gap_and_no_fan_pass_the_air_of_three_openings_in_a_row(case):
    """A small core in a wide opening: the ram air goes round it, as grille, gap and exit in series let it (square
    laws)."""
    small = min(cores(), key=lambda c: c.face_width.si * c.face_height.si)
    pack = package(small, TWIN, shroud(kind="none"))
    pack = pack.model_copy(update={"fans": (), "coolers": (), "sealing": Sealing()})
    points, _, layout = point(pack, case)
    wide = np.full_like(points.plant.network.grille_area, 0.45)
    net = points.plant.network._replace(bypass_area=wide, grille_area=wide, exit_area=wide)
    air = prepare(varied(points, {"plant.network": net}), layout).running
    flows, breath = air.flows, air.breath
    driven = (0.9 + 0.12) * 0.5 * breath.ahead * points.situation.air_speed**2
    round_it = 1.5 / net.grille_area**2 + 1 / 0.6**2 / net.bypass_area**2
    alone = np.sqrt(2 * driven / (round_it / breath.ahead + 1.8 / net.exit_area**2 / breath.bay))
    assert float(alone[0]) < float(flows.exit[0]) < 1.25 * float(alone[0]), "the core adds a little to the gap"
    assert float(flows.bypass[0]) > 3 * float(flows.core.sum())


@given(st.sampled_from(("0", "1/32", "1/16", "1/8", "1/4", "1/2")), st.sampled_from(("0", "1/8", "3/8", "1")))
def test_gaps_never_help_at_a_standstill(edge, side):
    pack = package(BIG, TWIN, shroud(edge_gap=inches(edge)))
    leaky = pack.model_copy(update={"sealing": sealed(side)})
    tight = package(BIG, TWIN, shroud(edge_gap=inches(0))).model_copy(update={"sealing": sealed(0)})
    assert outlet(tight) <= outlet(leaky) + 1e-6


def test_a_stopped_second_fan_under_a_shared_shroud_costs_flow_and_a_divided_one_saves_it():
    pack = package(BIG, TWIN)
    one_stopped = (pack.fans[0], pack.fans[1].model_copy(update={"runs": False}))
    shared = pack.model_copy(update={"fans": one_stopped})
    divided = shared.model_copy(update={"shroud": pack.shroud.model_copy(update={"plenum": "divided"})})
    alone = pack.model_copy(update={"fans": pack.fans[:1]})
    assert airflow(shared) < airflow(alone) < airflow(pack)
    assert airflow(shared) < airflow(divided)
    origin = assess(_with(shared)).cases[0].figures.fans[0]
    assert origin.from_hole > 0.3


def _with(pack, build=BUILD):
    return apply(build, Edit("", (Change(("packages",), (pack,)), Change(("active",), pack.id))))


def test_at_speed_a_full_shroud_without_flaps_can_lose_to_a_bare_fan_and_flaps_win_it_back():
    small = fan("10 in slim")
    full, bare, flaps = (
        package(BIG, small, s) for s in (shroud(), shroud(kind="none"), shroud(flap_area=quantity("80 in²", "area")))
    )
    assert airflow(full, "cruise") < airflow(bare, "cruise")
    assert airflow(full, "cruise") < airflow(flaps, "cruise")
    assert airflow(full, "idle") > airflow(bare, "idle")
    assert airflow(flaps, "idle") == pytest.approx(airflow(full, "idle"), rel=0.06), (
        "closed flaps cost next to nothing standing"
    )


def test_puller_beats_pusher_and_a_reversed_blade_is_no_pusher():
    puller = package(BIG, SIXTEEN, shroud(kind="none"))
    pusher = puller.model_copy(update={"fans": tuple(f.model_copy(update={"mount": "pusher"}) for f in puller.fans)})
    backwards = pusher.model_copy(
        update={"fans": tuple(f.model_copy(update={"reversed_blade": True}) for f in pusher.fans)}
    )
    assert airflow(backwards) < 0.75 * airflow(pusher)
    assert airflow(pusher, "cruise") < airflow(puller, "cruise"), "a pusher stands in the ram air"
    assert outlet(puller) <= outlet(pusher) + 1e-6


def test_a_fan_in_front_helps_one_behind():
    puller = package(BIG, SIXTEEN)
    front = puller.fans[0].model_copy(update={"id": "front", "mount": "pusher"})
    both = puller.model_copy(update={"fans": (*puller.fans, front)})
    assert airflow(both) > airflow(puller)


def test_two_twelves_against_one_sixteen():
    """Common practice, no source: two good 12 in fans out-pull one 16 in fan (ordering)."""
    assert airflow(package(BIG, TWIN)) > airflow(package(BIG, SIXTEEN, shroud()))


def test_a_deeper_shroud_and_a_centred_fan_move_more():
    shallow, deep = (package(BIG, SIXTEEN, shroud(depth=inches(d))) for d in ("3/4", "4"))
    assert airflow(shallow) < airflow(deep)
    aside = deep.model_copy(update={"fans": (deep.fans[0].model_copy(update={"x": inches(8)}),)})
    over_tank = deep.model_copy(update={"fans": (deep.fans[0].model_copy(update={"x": inches(2)}),)})
    assert airflow(over_tank) < airflow(aside) < airflow(deep)


def test_a_panel_hides_what_it_hides():
    pack = package(BIG, TWIN)
    hidden = apply(BUILD, set_value(("survey", "opening", "width"), inches(18), ""))
    assert airflow(pack, "cruise", hidden) < airflow(pack, "cruise")
    assert outlet(pack, "grade", hidden) > outlet(pack, "grade") + 1


def test_a_top_panel_cools_the_air_at_the_condenser():
    """Common practice, no source: panels alone have given about 10 °F at the A/C vents; here the air the condenser
    breathes."""
    pack = package(BIG, TWIN)
    panelled = pack.model_copy(update={"sealing": sealed(0)})
    before, after = (assess(_with(p)).cases[0].figures for p in (pack, panelled))
    assert 0.5 < before.front_air - after.front_air < 15
    assert before.recirculated > 0.03 > after.recirculated


def test_recirculation_needs_heat_in_the_bay():
    points, _, layout = point(package(BIG, TWIN))
    warm, cold = (
        prepare(varied(points, {"plant.engine.bay_share": np.array([share])}), layout).running.breath.front_temperature[
            0
        ]
        for share in (0.10, 0.0)
    )
    assert warm > cold


def test_a_gearbox_cooler_reports_its_fluid_and_heats_the_core():
    cooler = Cooler(
        id="g",
        kind="gearbox_cooler",
        left=inches(2),
        bottom=inches(4),
        width=inches(11),
        height=inches(6),
        loss=quantity("12", "number"),
        conductance=quantity("1500 W/m²K", "face conductance"),
    )
    automatic = apply(BUILD, set_value(("brief", "vehicle", "gearbox"), "automatic", ""))
    automatic = apply(automatic, set_value(("brief", "vehicle", "in_tank_cooler"), False, ""))
    pack = package(BIG, TWIN)
    cooled = pack.model_copy(update={"coolers": (*pack.coolers, cooler)})
    figures = assess(_with(cooled, automatic)).cases[3].figures
    found = next(c for c in figures.coolers if c.cooler_id == "g")
    assert found.heat > 500
    assert found.fluid > found.air_out > found.air_in
    assert outlet(cooled, "grade", automatic) > outlet(pack, "grade", automatic)


def test_a_charge_cooler_takes_heat_only_under_boost():
    cooler = Cooler(id="i", kind="charge_cooler", height=inches(8))
    pack = package(BIG, TWIN)
    figures = {c.case_id: c.figures for c in assess(_with(pack.model_copy(update={"coolers": (cooler,)}))).cases}
    assert figures["idle"].coolers[0].heat < 50
    assert figures["full"].coolers[0].heat > 3000


@given(CORE, FANS)
def test_more_air_never_heats_the_outlet(core, assembly):
    points, _, layout = point(package(core, assembly), "grade")
    net = points.plant.network
    wider = varied(
        points, {"plant.network.grille_area": 1.5 * net.grille_area, "plant.network.exit_area": 1.5 * net.exit_area}
    )
    base, more = (solve(p, layout).state.temperature[0] for p in (points, wider))
    assert more <= base + 1e-6


def test_the_marching_converges_with_the_grid(monkeypatch):
    """Coarser faces of the same package come within a fraction of a kelvin of the 16 x 24 face, and closer the finer
    they are."""
    found = {}
    for grid in ((4, 6), (8, 12), (16, 24), (32, 48)):
        monkeypatch.setattr(face, "GRID", grid)
        with Kept().at_work():  # nothing made on another grid
            found[grid] = outlet(package(BIG, SIXTEEN, shroud(kind="none")), "grade")
    monkeypatch.undo()
    errors = [abs(found[grid] - found[(32, 48)]) for grid in ((4, 6), (8, 12), (16, 24))]
    assert errors[2] < 0.15
    assert errors[2] < errors[1] < 1.0


BAD = {
    "next to no grille": ((("brief", "vehicle", "grille_area"), "0.8 in²", "area"),),
    "a face entirely behind its panel": (
        (("survey", "opening", "width"), "0.9 in", LONG),
        (("survey", "opening", "height"), "0.9 in", LONG),
    ),
    "a fan far off the face": ((("packages", "p1", "fans", "fan1", "x"), "60 in", LONG),),
    "a cover larger than the opening": ((("survey", "opening", "width"), "12 in", LONG),),
    "hardly any exit": ((("brief", "vehicle", "exit_area"), "0.8 in²", "area"),),
    "a fan without volts": ((("packages", "p1", "circuits", "circuit1", "measured_drop"), "10 V", "voltage"),),
}


@pytest.mark.parametrize("name", BAD)
def test_contradictions_give_figures_or_findings_never_nonsense(name):
    build = BUILD
    for path, text, kind in BAD[name]:
        build = apply(build, set_value(path, quantity(text, kind), ""))
    assessment = assess(build)
    for case in assessment.cases:
        f = case.figures
        assert np.isfinite([f.temperature, f.heat_in, f.airflow, f.front_air, f.bay_air, f.recirculated]).all()
    assert assessment.findings
