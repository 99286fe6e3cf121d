"""The API's root: one router a noun, one shape for problems."""

from typing import Any

from ninja import NinjaAPI
from ninja.errors import ValidationError, ValidationErrorContext
from ninja.openapi.schema import OpenAPISchema

from workshop.access import Maker
from workshop.accounts.api import makers_router as makers
from workshop.accounts.api import router as accounts
from workshop.build.api import log_router as log
from workshop.build.api import router as builds
from workshop.build.class_api import router as classes
from workshop.build.time_api import router as time
from workshop.gauges.api import router as gauges
from workshop.keeping.api import router as keeping
from workshop.paper.api import router as paper
from workshop.pieces.api import router as pieces
from workshop.pieces.photo_api import router as photos
from workshop.pieces.plan_api import router as plans
from workshop.problems import PROBLEM, Problem, answer_problems
from workshop.shop.api import router as shop
from workshop.timber.api import router as timber
from workshop.timber.wood_api import router as wood

ALWAYS = {
    400: "The request could not be read",
    401: "Nobody is signed in",
    403: "Not allowed, or without the page's token",
    404: "There is no such thing",
    405: "It takes no such request",
    409: "Somebody changed it meanwhile",
    413: "Too much was sent",
    415: "It was sent in a way that is not read",
    422: "Something in it cannot be used",
    429: "Asked too often: wait",
    500: "The program failed; the answer names the fault",
    503: "Busy: ask again",
    507: "The disk takes nothing more",
}
"""What any request may be answered, in the one shape of problems."""


class ProudRake(NinjaAPI):
    """The API, whose schema declares every answer it gives."""

    def validation_error_from_error_contexts(
        self, contexts: list[ValidationErrorContext]
    ) -> ValidationError:
        """What is wrong with a request; with what was given, which the framework leaves out."""
        found = super().validation_error_from_error_contexts(contexts)
        wrong = [one for context in contexts for one in context.pydantic_validation_error.errors()]
        for error, one in zip(found.errors, wrong, strict=True):
            error["input"] = one["input"]
        return found

    def get_openapi_schema(self, **how: Any) -> OpenAPISchema:
        """The schema with every problem under its own content type, and pictures as pictures."""
        schema = super().get_openapi_schema(**how)
        problem = Problem.model_json_schema(ref_template="#/components/schemas/{model}")
        schema["components"]["schemas"] |= {**problem.pop("$defs"), "Problem": problem}
        said = {PROBLEM: {"schema": {"$ref": "#/components/schemas/Problem"}}}
        schema["components"]["responses"] = {
            f"Problem{status}": {"description": description, "content": said}
            for status, description in ALWAYS.items()
        }
        for path, methods in schema["paths"].items():
            for operation in methods.values():
                answers = operation["responses"]
                for status in ALWAYS:
                    if "HealthOut" not in str(answers.get(status)):
                        answers[status] = {"$ref": f"#/components/responses/Problem{status}"}
                for ending, kind in FILES.items():
                    if path.endswith(ending) and "get" in methods:
                        methods["get"]["responses"][200]["content"] = {
                            kind: {"schema": {"type": "string", "format": "binary"}}
                        }
        return schema


FILES = {
    "/photo": "image/jpeg",
    "/backups/{name}": "application/zip",
    "/archive": "application/zip",
    "/out/{name}": "application/octet-stream",
    "/time/calendar": "text/calendar",
    "/timber/table": "text/csv",
}
"""What answers with a file, by the ends of their addresses."""

api = ProudRake(
    title="Proud Rake",
    version="1",
    description="Lengths in millimetres, angles in degrees; texts in the trade's notation are read.",
    auth=Maker(),
    docs_url=None,
    openapi_url=None,
    urls_namespace="api",
)
answer_problems(api)
api.add_router("/session", accounts, tags=["session"])
api.add_router("/makers", makers, tags=["makers"])
api.add_router("/pieces", pieces, tags=["pieces"])
api.add_router("/pieces", photos, tags=["pieces"])
api.add_router("/pieces", paper, tags=["paper"])
api.add_router("/pieces", builds, tags=["build"])
api.add_router("/pieces", classes, tags=["build"])
api.add_router("/pieces", wood, tags=["wood"])
api.add_router("/timber", timber, tags=["timber"])
api.add_router("/time", time, tags=["time"])
api.add_router("/log", log, tags=["log"])
api.add_router("/shop", shop, tags=["shop"])
api.add_router("", plans, tags=["plan"])
api.add_router("", gauges, tags=["gauges"])
api.add_router("", keeping, tags=["keeping"])
