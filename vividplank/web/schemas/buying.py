"""Buying over the wire: what to ask for, simulated trips, boards on offer. Lengths in ticks, money
and board feet as numbers.
"""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.board import Board
from vividplank.core.buying.ask import Ask
from vividplank.core.buying.chance.cart import CartChance
from vividplank.core.buying.chance.first_look import FirstLook
from vividplank.core.buying.chance.mixture import Mixture
from vividplank.core.buying.chance.variation import Moved, Variation
from vividplank.core.buying.chance.ways import SupplierWay
from vividplank.core.buying.market.offer import OfferedBoard, OfferState
from vividplank.core.buying.market.population import Grade
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.buying.material import Materials
from vividplank.core.fields import MOST, Money, Name, Number, Ticks
from vividplank.core.layout.model.plan import Segment
from vividplank.web.schemas.project import LengthNeedBody, SheetNeedBody
from vividplank.web.shapes import Body

Chance = Annotated[float, Field(ge=0.5, le=0.99)]


class NeedList(Body):
    """`by_books` is how much rough wood this workshop has needed for one of parts, by wood."""

    asks: list[Ask]
    by_books: dict[str, float]
    sheets: list[SheetNeedBody]
    lengths: list[LengthNeedBody]


class NeedQuery(Body):
    stock_length: Annotated[int, Field(gt=0, le=10**9)] | None = None


class MaterialsBody(Body):
    """What a project needs besides its boards: `cost` is that of all lines together, in the money
    of the shop; `version` counts what was kept.
    """

    materials: Materials
    cost: float
    version: int


class PutMaterials(Body):
    materials: Materials
    version: Annotated[int, Field(ge=0, le=MOST)]


class SupplierList(Body):
    suppliers: list[Supplier]


class SupplierPut(Body):
    supplier: Supplier


class SupplierPath(Body):
    supplier: Name


class PriceBook(Body):
    """A price book as the text of a CSV file."""

    text: Annotated[str, Field(max_length=2_000_000)]


class EstimateAsked(Body):
    """`variation` has the trips made for the list with one change, to be set beside its own."""

    supplier: Name
    variation: Variation | None = None
    grade: Grade | Literal[""] = ""
    use_hand: bool = False
    trips: Annotated[int, Field(ge=1, le=400)] = 12


class EstimateMade(Body):
    pk: Number


class WaysQuery(Body):
    """`chance` that the list is to be covered with, and what an hour of the maker's time counts."""

    chance: Chance = 0.9
    hour: Annotated[float, Field(ge=0, le=10_000)] = 0.0
    use_hand: bool = False


class SupplierWayBody(Body):
    """A supplier; `way` is None where no trip was simulated yet. `done` of `trips` were; `per_foot`
    is its price for every group of the list, none where it has none. `milled` where the wood is
    milled to the list there.
    """

    supplier: Name
    name: str
    grade: str
    milled: bool
    trips: int
    done: int
    trouble: str
    way: SupplierWay | None
    per_foot: dict[str, float | None]


class RecommendationBody(Body):
    supplier: Name
    grade: str
    milled: bool
    next: str
    next_grade: str
    saves: float
    only: bool


class WayList(Body):
    """`mixture` is buying at several of them, where that is cheaper than at any one."""

    ways: list[SupplierWayBody]
    recommended: RecommendationBody | None
    mixture: Mixture | None


class FirstLookQuery(Body):
    supplier: Name
    grade: Grade | Literal[""] = ""
    chance: Chance = 0.9


class FirstLookBody(Body):
    groups: list[FirstLook]


class VariationQuery(Body):
    supplier: Name
    grade: Grade | Literal[""] = ""


class VariationBody(Body):
    """`done` of `trips` were simulated with the change; `moved` is None before two of them can be
    set beside the list's own.
    """

    variation: Variation
    trips: int
    done: int
    trouble: str
    moved: Moved | None


class VariationList(Body):
    variations: list[VariationBody]


class BoardVerdict(Body):
    word: Literal["take", "even", "leave", "not-wanted"]
    worth: float
    error: float | None
    price: float
    reason: Literal["good", "covered", "faults", "warp", "size", "dear"] | None
    lost: float
    gives: dict[str, int]
    keep: Ticks
    clear: Ticks
    segments: list[Segment]
    completes: bool


class BoardOffer(Body):
    """`verdict` is None where the list has nothing of this wood; `feet` are by the tape and the
    supplier's rule, `over` is what the ticket says more.
    """

    offer: OfferedBoard
    group: str
    verdict: BoardVerdict | None
    feet: float
    over_feet: float
    over: float
    kg: float | None


class CartBody(Body):
    """`remaining` of `pieces` of a group are still wanted beside the cart."""

    key: str
    pieces: int
    remaining: int
    missing: dict[str, int]
    value: float
    cost: float


class BoardOffers(Body):
    offers: list[BoardOffer]
    cart: list[CartBody]


class CartChanceBody(Body):
    """`known` is None where the cart is empty or no sample was laid out in the time there is."""

    known: CartChance | None


class OfferPath(Body):
    project: Number
    mark: Name


class SupplierQuery(Body):
    supplier: Name


class OfferPut(Body):
    board: Board
    supplier: Name
    per_foot: Money
    ticket_feet: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)] | None = None
    ticket: Money | None = None
    state: OfferState = "pile"


class PileAsked(Body):
    supplier: Name
    species: Name
    quarter: Name
    count: Annotated[int, Field(ge=1, le=100)] = 23


class ChosenBody(Body):
    take: list[str]
    left_out: dict[str, int]
    cost: float


class FirstWordsBody(Body):
    """What plain boards are worth beside the cart, by trouble, length and width; `per_foot` is the
    supplier's price.
    """

    key: str
    species: str
    quarter: str
    per_foot: float
    lengths: list[Ticks]
    widths: list[Ticks]
    worths: dict[Literal["none", "check", "twist"], list[list[float]]]


class WordsList(Body):
    words: list[FirstWordsBody]


class BoughtBody(Body):
    """The project's version now, and the marks of the new boards."""

    version: Number
    boards: list[str]
