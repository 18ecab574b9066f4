"""Blueprints of the API whose description is made when it is asked for."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask_openapi3 import APIBlueprint
from flask_openapi3.types import ParametersTuple

from oblatus.web.schemas_errors import EVERYWHERE


class Routes(APIBlueprint):
    """Routes that can answer with the errors of every route.

    Describing them takes seconds, in which a program that is started could serve: only openapi.json asks for it.
    """

    def __init__(self, name: str, import_name: str, url_prefix: str) -> None:
        super().__init__(name, import_name, url_prefix=url_prefix, abp_responses=EVERYWHERE)
        self._undescribed: list[tuple[str, Callable[..., Any], dict[str, Any]]] = []

    def _collect_openapi_info(self, rule: str, func: Callable[..., Any], **about: Any) -> ParametersTuple:
        self._undescribed.append((rule, func, about))
        return super()._collect_openapi_info(rule, func, **{**about, "doc_ui": False})

    def describe(self) -> None:
        """Describe every route, in their order; what is registered afterwards brings it along."""
        waiting, self._undescribed = self._undescribed, []
        for rule, func, about in waiting:
            super()._collect_openapi_info(rule, func, **about)
