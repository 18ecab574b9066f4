"""Questions to the engine: a strike at the desk, how sure a proposal is, what each school would change."""

from oblatus.formats.desk import DeskIn, DeskOut
from oblatus.formats.evidence import EvidenceOut, FlipsOut, SchoolsOut
from oblatus.usecases.ask_engine import each_school, how_sure, stop_question, what_flips
from oblatus.usecases.at_desk import at_desk
from oblatus.usecases.engine import FLIPS, SCHOOLS, engine
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes
from oblatus.web.schemas import CountOut, FittingPath, WorkOut

blueprint = Routes("engine", __name__, "/api")


@blueprint.post("/desk", responses={200: DeskOut})
def post_desk(body: DeskIn) -> Answer:
    """Sole pass, window, shares, flight and risk of up to eight heads with one setup on one ground."""
    return answer(at_desk(body, engine().pool))


@blueprint.get("/engine/work", responses={200: WorkOut})
def get_work() -> Answer:
    """How far long work is, over all workers."""
    counts = engine().work.everywhere(str(actor().studio_id))
    return answer(WorkOut(**{kind: CountOut(done=done, total=total) for kind, (done, total) in counts.items()}))


@blueprint.delete("/engine/work", responses={204: None})
def stop_work() -> Answer:
    """Stop making families ahead for this studio; the next question makes those that it needs."""
    engine().work.stop(str(actor().studio_id))
    return nothing()


@blueprint.get("/fittings/<uuid:fitting_id>/evidence", responses={200: EvidenceOut})
def get_evidence(path: FittingPath) -> Answer:
    """How often each club stays the choice, and what to measure next."""
    return answer(how_sure(database(), actor(), path.fitting_id))


@blueprint.get("/fittings/<uuid:fitting_id>/flips", responses={200: FlipsOut})
def get_flips(path: FittingPath) -> Answer:
    """The nearest change of lean, attack, entry, firmness and sand that flips the choice."""
    return answer(what_flips(database(), actor(), path.fitting_id))


@blueprint.delete("/fittings/<uuid:fitting_id>/flips", responses={204: None})
def stop_flips(path: FittingPath) -> Answer:
    """Stop looking for the nearest changes."""
    stop_question(database(), actor(), path.fitting_id, FLIPS)
    return nothing()


@blueprint.get("/fittings/<uuid:fitting_id>/schools", responses={200: SchoolsOut})
def get_schools(path: FittingPath) -> Answer:
    """The proposal under every other school."""
    return answer(each_school(database(), actor(), path.fitting_id))


@blueprint.delete("/fittings/<uuid:fitting_id>/schools", responses={204: None})
def stop_schools(path: FittingPath) -> Answer:
    """Stop working out what each school would change."""
    stop_question(database(), actor(), path.fitting_id, SCHOOLS)
    return nothing()
