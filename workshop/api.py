"""The API's root: one router a noun, one shape for problems."""

from ninja import NinjaAPI

from workshop.access import Maker
from workshop.accounts.api import router as accounts
from workshop.gauges.api import router as gauges
from workshop.pieces.api import router as pieces
from workshop.pieces.photo_api import router as photos
from workshop.pieces.plan_api import router as plans
from workshop.problems import answer_problems
from workshop.shop.api import router as shop

api = NinjaAPI(
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
api.add_router("/pieces", pieces, tags=["pieces"])
api.add_router("/pieces", photos, tags=["pieces"])
api.add_router("/shop", shop, tags=["shop"])
api.add_router("", plans, tags=["plan"])
api.add_router("", gauges, tags=["gauges"])
