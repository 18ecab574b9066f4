"""The build sheet, its orders at the bench, and the sheet on paper."""

from oblatus.formats.build import BuildOut
from oblatus.usecases.build_orders import (
    cancel_order,
    order_anew,
    order_build,
    see_build,
    sign_build,
    tick,
)
from oblatus.usecases.print_build import print_csv, print_pdf
from oblatus.web.answers import Answer, answer, download, nothing
from oblatus.web.auth import actor, database, reader
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_build import OrderAnewIn, OrderIn, OrderPath, SignIn, TickIn
from oblatus.web.schemas_errors import ErrorOut

blueprint = Routes("build", __name__, "/api/fittings/<uuid:fitting_id>")
PDF, CSV = "application/pdf", "text/csv; charset=utf-8"
AS_PDF = {"content": {PDF: {"schema": {"type": "string", "format": "binary"}}}}
AS_CSV = {"content": {CSV: {"schema": {"type": "string"}}}}


@blueprint.get("/build", responses={200: BuildOut})
def get_build(path: FittingPath) -> Answer:
    """The set as it is to be built: work, parts, price, what it is worth so, and how the bench is getting on."""
    return answer(see_build(database(), actor(), path.fitting_id))


@blueprint.get("/build/sheet.pdf", responses={200: AS_PDF})
def get_build_pdf(path: FittingPath) -> Answer:
    """The sheet on paper."""
    printed = print_pdf(database(), actor(), path.fitting_id, None, reader())
    return download(printed.content, PDF, printed.name, ".pdf")


@blueprint.get("/build/sheet.csv", responses={200: AS_CSV})
def get_build_csv(path: FittingPath) -> Answer:
    """The sheet as a table."""
    printed = print_csv(database(), actor(), path.fitting_id, None)
    return download(printed.content, CSV, printed.name, ".csv")


@blueprint.post("/build/orders", responses={201: BuildOut, 409: ErrorOut})
def post_order(path: FittingPath, body: OrderIn) -> Answer:
    """Give the sheet to the bench and take its heads from the rack."""
    return answer(order_build(database(), actor(), path.fitting_id, body.id, body.revision, body.rack_key), 201)


@blueprint.put("/build/orders/<uuid:order_id>", responses={200: BuildOut, 409: ErrorOut})
def put_order(path: OrderPath, body: OrderAnewIn) -> Answer:
    """Take what the sheet has by now into its order."""
    return answer(order_anew(database(), actor(), path.fitting_id, path.order_id, body.revision))


@blueprint.delete("/build/orders/<uuid:order_id>", responses={204: None})
def delete_order(path: OrderPath) -> Answer:
    """Cancel an order; its heads are back on the rack."""
    cancel_order(database(), actor(), path.fitting_id, path.order_id)
    return nothing()


@blueprint.put("/build/orders/<uuid:order_id>/ticks", responses={204: None})
def put_tick(path: OrderPath, body: TickIn) -> Answer:
    """Tick a piece of work off, or not after all."""
    tick(database(), actor(), path.fitting_id, path.order_id, body.club, body.operation, done=body.done)
    return nothing()


@blueprint.post("/build/orders/<uuid:order_id>/sign", responses={200: BuildOut, 409: ErrorOut})
def post_sign(path: OrderPath, body: SignIn) -> Answer:
    """Sign the set as built; the bag holds the built clubs from then on."""
    return answer(sign_build(database(), actor(), path.fitting_id, path.order_id, body.revision, body.reason))


@blueprint.get("/build/orders/<uuid:order_id>/sheet.pdf", responses={200: AS_PDF})
def get_order_pdf(path: OrderPath) -> Answer:
    """The sheet of an order on paper, as it was signed."""
    printed = print_pdf(database(), actor(), path.fitting_id, path.order_id, reader())
    return download(printed.content, PDF, printed.name, ".pdf")


@blueprint.get("/build/orders/<uuid:order_id>/sheet.csv", responses={200: AS_CSV})
def get_order_csv(path: OrderPath) -> Answer:
    """The sheet of an order as a table, as it was signed."""
    printed = print_csv(database(), actor(), path.fitting_id, path.order_id)
    return download(printed.content, CSV, printed.name, ".csv")
