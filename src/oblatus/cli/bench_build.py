"""Speed of a proof's verdict, of the set as built, and of the sheet and the setup card on paper."""

from __future__ import annotations

import time
from datetime import date
from typing import Any

import numpy as np

from oblatus.cli.bench_carries import times
from oblatus.core.fitting.proposal import propose
from oblatus.core.words import SI
from oblatus.formats.card import EVERY
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.formats.print import pages
from oblatus.formats.print.build_sheet import build_pdf
from oblatus.formats.print.cards import setup_card_pdf
from oblatus.formats.proof import ProofDocument
from oblatus.formats.proposal_out import recommendation_out
from oblatus.formats.sections.build import AsBuiltDocument
from oblatus.usecases.build_sheet import sheet_of
from oblatus.usecases.card_of import card_of
from oblatus.usecases.engine import engine
from oblatus.usecases.judge_proof import proof_out


def measure_build() -> dict[str, Any]:
    """The verdict after every ball of the demo proof, the demo sheet judged at other readings, that sheet and the setup
    card as PDF.
    """
    document = next(one for one in demo_fittings() if one.build.clubs)
    fitting, judge = fitting_from(document, demo_rack()), engine().judge
    proposal = recommendation_out(propose(fitting, judge))
    attached = document.attached
    proof = ProofDocument.model_validate(attached.proofs[0] if attached else {})

    def as_built(n: int) -> None:  # other readings every time: nothing is known from before
        clubs = tuple(
            club.model_copy(
                update={"read": AsBuiltDocument(loft_deg=club.loft_deg + 0.01 * (n + 1), lie_deg=club.lie_deg or 64.0)}
            )
            for club in document.build.clubs
        )
        build = document.build.model_copy(update={"clubs": clubs})
        sheet_of(document.model_copy(update={"build": build}), fitting, proposal, judge)

    sheet = sheet_of(document, fitting, proposal, judge).out
    began = time.perf_counter()
    pages.warm_up()
    loaded = time.perf_counter() - began
    verdicts, built = times(lambda _: proof_out(proof), 20), times(as_built, 20)
    printed = times(lambda _: build_pdf(sheet, "player", "studio", date(2026, 1, 1), SI), 10)
    card = card_of(document, fitting, proposal, judge, EVERY["m"], date(2026, 1, 1), {})
    lies = times(lambda _: setup_card_pdf(card, "a4", SI), 3)
    return {
        "proof_verdict_ms": 1e3 * float(np.median(verdicts)),
        "proof_verdict_p95_ms": 1e3 * float(np.quantile(verdicts, 0.95)),
        "as_built_ms": 1e3 * float(np.median(built)), "as_built_p95_ms": 1e3 * float(np.quantile(built, 0.95)),
        "load_for_paper_ms": 1e3 * loaded, "sheet_pdf_ms": 1e3 * float(np.median(printed)),
        "sheet_pdf_first_ms": 1e3 * float(printed[0]),
        "setup_card_pdf_over_sheet_pdf": float(np.median(lies) / np.median(printed)),
    }  # fmt: skip
