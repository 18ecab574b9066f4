"""`oblatus proof plan FILE` and `oblatus proof judge FILE`: proofs from a shell."""

from __future__ import annotations

import json
from argparse import Namespace
from datetime import date
from typing import Any
from uuid import uuid4

from pydantic import ValidationError

from oblatus.cli.arguments import read_text, say
from oblatus.core.fitting.proposal import propose
from oblatus.errors import fault
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_rack
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import parse_fitting
from oblatus.formats.heads import head_out
from oblatus.formats.proof import ProofRequest, load_proof
from oblatus.usecases.engine import engine
from oblatus.usecases.judge_proof import evidence_of, proof_out, standing
from oblatus.usecases.proofs import plan_document


def add_proof(commands: Any) -> None:
    """Register `proof`."""
    parser = commands.add_parser("proof", help="plan a proof of candidates, or judge one by its balls")
    verbs = parser.add_subparsers(dest="verb", required=True)
    plan = verbs.add_parser("plan", help="a proof document from {fitting, candidates, situations, ...}")
    judge = verbs.add_parser("judge", help="what the balls of a proof document say")
    for verb, run in ((plan, run_plan), (judge, run_judge)):
        verb.add_argument("file", help="JSON, - for standard input")
        verb.add_argument("--json", action="store_true", help="JSON is the only output; accepted for symmetry")
        verb.set_defaults(run=run)


def run_plan(args: Namespace) -> int:
    """Print the proof that is asked for; candidates are own:N, codes of the rack, or code@loft of the proposal."""
    try:
        asked = json.loads(read_text(args.file))
    except (ValueError, RecursionError) as error:
        raise fault("file", f"is not JSON: {str(error)[:120]}") from error
    if not isinstance(asked, dict) or "fitting" not in asked:
        raise fault("fitting", "is missing")
    document = parse_fitting(asked.pop("fitting"))
    try:
        request = ProofRequest.model_validate(asked)
    except ValidationError as error:
        raise faults_of(error) from error
    rack = document.rack if document.rack is not None else tuple(demo_rack())
    fitting, judge = fitting_from(document, rack), engine().judge
    built = {}
    if any("@" in code for code in request.candidates):
        found = propose(fitting, judge).recommendation
        built = {f"{c.stock.code}@{c.head.loft_deg:g}": head_out(c.head) for c in found.candidates}
    proof = plan_document(document, rack, fitting, request, built, judge, uuid4(), date.today())
    print(proof.model_dump_json(indent=1))
    return 0


def run_judge(args: Namespace) -> int:
    """Print the verdict, and what it would move in the proposal."""
    document = load_proof(read_text(args.file))
    found = proof_out(document)
    answer = {
        "verdict": found.verdict.model_dump(),
        "standing": standing(document),
        "plan": found.plan.model_dump(exclude={"blocks"}),
        "evidence": [one.model_dump(mode="json") for one in evidence_of(document, date.today())],
    }
    say(json.dumps(answer, ensure_ascii=False, allow_nan=False))
    return 0
