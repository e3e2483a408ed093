"""Documents that carry the version they were read at."""

from ninja import Schema

from api.plumbing.typed import Version


class VersionDocument(Schema):
    """The version a document was read at."""

    version: Version
