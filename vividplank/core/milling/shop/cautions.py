"""What is said before a machine is first used. General; the manual, local rules and a teacher come
first.
"""

DEFER = (
    "The machine's own manual, local rules and a competent teacher come before anything said here."
)
_ALWAYS = (
    "Eyes, ears and dust extraction on; no gloves, loose sleeves, cords or hair near a cutter."
)
CAUTIONS: dict[str, tuple[str, ...]] = {
    "jointer": (
        _ALWAYS,
        "Guard over the cutter, push blocks in hand; hands never pass over the cutter head.",
        (
            "Look first for metal, loose knots and cracks: they are cut away before this machine, "
            "not in it."
        ),
        DEFER,
    ),
    "planer": (
        _ALWAYS,
        "Never look into it while it runs, and never change the depth with stock inside.",
        "Stand to the side; let it feed, do not push or pull.",
        DEFER,
    ),
    "table saw": (
        _ALWAYS,
        "Guard and riving knife on; push stick near the blade; stand beside the line of kickback.",
        "Never pull stock back or lift it: stop the saw, wait for standstill, then clear.",
        DEFER,
    ),
    "bandsaw": (_ALWAYS, "Guide set just above the stock; hands out of the blade's line.", DEFER),
    "crosscut saw": (
        _ALWAYS,
        "Hold the stock flat to table and fence; let the blade stop before you clear the offcut.",
        DEFER,
    ),
    "hand plane": (
        (
            "The piece against a stop or in the vice, both hands on the plane, neither before its "
            "edge."
        ),
        "Some woods irritate skin and lungs: sweep up, do not blow.",
        DEFER,
    ),
    "handsaw": (
        (
            "Start the cut with the thumb above the teeth, not beside them; support the offcut "
            "before it falls."
        ),
        DEFER,
    ),
    "router bridge": (
        _ALWAYS,
        (
            "The piece wedged and screwed from below where no cutter reaches; light passes, away "
            "from the body."
        ),
        DEFER,
    ),
    "bench": (
        "Lift with two what is too heavy for one; read the glue's own sheet, and air the room.",
        DEFER,
    ),
    "outside shop": (
        "Tell them of metal, loose knots and cracks before it goes into their machine.",
        DEFER,
    ),
    "not here": (
        "Nothing in this shop takes it as it is: plan another way before anything is cut.",
        DEFER,
    ),
}
