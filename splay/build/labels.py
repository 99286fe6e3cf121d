"""What the fields of a build are called where they are filled in, and what each choice is called."""

from __future__ import annotations

LABELS: dict[str, str] = {
    "Build.outline": "Outline cut",
    "Build.glue": "Glue",
    "Build.open_min": "Open at 20 °C by your own count, min",
    "Build.air_c": "Shop today, °C",
    "Build.air_rh": "Damp, %",
    "Build.finish": "Finish",
    "Build.used": "Used",
    "Build.prefinish": "Finished",
    "Build.reused": "Old finish on the wood",
}
"""By field."""
TITLES: dict[str, dict[str | int, str]] = {
    "Build.outline": {"after_boring": "after boring", "before_boring": "before boring, in a cradle"},
    "Build.glue": {
        "yellow": "yellow",
        "slow": "slow yellow",
        "hide": "hot hide",
        "liquid_hide": "liquid hide",
        "epoxy": "slow epoxy",
        "none": "none",
    },
    "Build.finish": {
        "hard_wax_oil": "hard-wax oil",
        "wiping_varnish": "wiping varnish",
        "exterior_varnish": "exterior varnish",
        "lacquer": "lacquer, sprayed",
        "soap": "soap",
        "bare": "none",
    },
    "Build.used": {
        "": "by its kind",
        "indoors": "indoors",
        "feet": "stepped on",
        "outdoors": "outdoors",
        "child": "a child’s",
    },
    "Build.prefinish": {"no": "after assembly", "yes": "before, where it will be out of reach"},
    "Build.reused": {"no": "none", "yes": "of unknown kind"},
}
"""By field, the words of each choice in the order they are offered; of what is so or not, both words."""
