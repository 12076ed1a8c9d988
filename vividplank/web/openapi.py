"""The API's description, as docs/openapi.json keeps it: `python -m vividplank.web.openapi`."""

import json
from pathlib import Path

from vividplank.core.survey.instruments import NoInstruments
from vividplank.web.app import create_app
from vividplank.web.asking import Asking


def openapi_document() -> str:
    app = create_app(Asking(_nobody, _nobody, _nobody, _nobody, _nobody), NoInstruments())
    document = app.api_doc
    components = {
        name: value for name, value in document["components"].items() if value is not None
    }
    return json.dumps(document | {"components": components}, indent=1, sort_keys=True) + "\n"


def _nobody(pk: int) -> None:
    """Nothing is asked of an application that only describes itself."""


if __name__ == "__main__":
    place = Path(__file__).parents[2] / "docs" / "openapi.json"
    place.write_text(openapi_document(), encoding="utf-8")
